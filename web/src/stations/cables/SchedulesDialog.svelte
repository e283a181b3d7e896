<script lang="ts">
  import { api } from '../../api/client'
  import type { Schedules } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { hand } from './hand.svelte'
  import Modal from './Modal.svelte'
  import ScheduleTables from './ScheduleTables.svelte'

  /** Fuse schedule and cable cut list, to read here or to take away as CSV. */
  let lists = $state.raw<Schedules | null>(null)
  let told = $state('')
  async function ask() {
    try {
      lists = await api.schedules(session.worked!, session.bankIndex)
      told = ''
      // The files are written from what is kept.
      await session.commit()
    } catch (e) {
      told = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }
  $effect(() => {
    if (hand.dialog === 'schedules' && session.evaluation) void ask()
  })
  const file = (name: string) => `/api/designs/${session.id}/${name}.csv?bank=${session.bankIndex}`
</script>

<Modal name="schedules" title="Fuse schedule and cable cut list" wide>
  {#if lists}
    <ScheduleTables {lists} />
    <p class="caution">
      Cut to measured lengths, and add what lugs and bends ask for. Colours, studs and interrupt ratings are usual ones:
      the local code and the makers’ sheets come first.
    </p>
  {:else}
    <p class="note mt-2" role="status">{told || 'Writing the lists…'}</p>
  {/if}
  {#snippet actions()}
    <a class="btn btn-outline btn-sm" href={file('fuses')} download>Fuses as CSV</a>
    <a class="btn btn-outline btn-sm" href={file('cables')} download>Cables as CSV</a>
  {/snippet}
</Modal>
