<script lang="ts">
  import { untrack } from 'svelte'
  import { api, Refused } from '../api/client'
  import { memory } from './memory.svelte'
  import { route } from './route.svelte'
  import DeviceKey from './DeviceKey.svelte'
  import { session } from './session.svelte'
  import Builds from '../builds/Builds.svelte'
  import Summary from '../summary/Summary.svelte'
  import Tape from './Tape.svelte'
  import AllFindings from '../findings/AllFindings.svelte'
  import NewDesign from './NewDesign.svelte'
  import Shelf from './Shelf.svelte'
  import Workbench from './Workbench.svelte'

  let trouble = $state<string | null>(null)

  // A device that is not known yet is asked for its key.
  const fail = (sentence: string) => (e: unknown) => {
    if (e instanceof Refused && e.status === 401) route.toKey()
    else trouble = e instanceof Refused && e.status === 422 ? e.message : sentence
  }

  // Without an address the design last worked on opens, at first the newest on the shelf.
  async function settle() {
    const last = memory.read('inky-badger.last')
    const cards = await api.designs()
    const id = cards.find((c) => c.id === last)?.id ?? cards[0]?.id
    route.go(id ? `#/d/${id}/bank` : '#/shelf')
  }

  $effect(() => {
    const id = route.design
    trouble = null
    if (id && id !== session.id)
      session.open(id).catch(fail('This design cannot be opened. It may have been taken off the shelf.'))
    else if (!id && !route.shelf && !route.fresh && route.key === null)
      settle().catch(fail('The server does not answer.'))
  })
  $effect(() => {
    const station = route.station
    if (!route.tape && !route.summary && !route.builds && !route.findings) untrack(() => session.arrive(station))
  })
</script>

{#if route.key !== null}
  <DeviceKey />
{:else if trouble}
  <main class="p-8">
    <h1 class="headline">{trouble}</h1>
    <p class="mt-3"><a class="link-copper" href="#/shelf">To the shelf</a></p>
  </main>
{:else if route.shelf}
  <Shelf />
{:else if route.fresh}
  <NewDesign />
{:else if session.design && session.evaluation && session.reference}
  {#if route.tape}<Tape />{:else if route.summary}<Summary />{:else if route.findings}<AllFindings
    />{:else if route.builds}<Builds />{:else}<Workbench />{/if}
{:else}
  <main class="p-8 caption" aria-busy="true">Opening the design…</main>
{/if}
