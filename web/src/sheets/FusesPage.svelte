<script lang="ts">
  import { session } from '../app/session.svelte'
  import { num, say, sayVolts } from '../ui/quantity'
  import { sheets } from './sheets.svelte'

  /** Every fuse: what it is, what it must bear and break where it sits, and what it protects. */
  const several = $derived(sheets.answer!.banks.length > 1)
  const tag = (bank: string, run: string) => sheets.rows.get(`${bank}/fuse-${run}`)?.part.tag ?? ''
</script>

{#each sheets.answer!.banks as b (b.id)}
  {#if b.lists.fuses.length > 0}
    {#if several}<h3>{b.name || b.id}</h3>{/if}
    <table data-fuses={b.id}>
      <thead
        ><tr
          ><th>tag</th><th>fuse</th><th class="n">count</th><th>class</th><th class="n">rating</th><th>bears</th><th
            class="n">breaks</th
          ><th class="n">a short there</th><th class="n">from its source</th><th>protects</th></tr
        ></thead
      >
      <tbody>
        {#each b.lists.fuses as f (f.run)}
          <tr
            ><th class="fig">{tag(b.id, f.run)}</th><td>{f.name}{f.chosen ? ', chosen' : ''}</td><td class="n fig"
              >{num(f.count)}</td
            ><td>{f.class}</td><td class="n fig">{f.ratingA === null ? 'none made' : say(f.ratingA, 'rating')}</td><td
              class="fig">{sayVolts(f.maxDcV)} on {sayVolts(f.greatestV)}</td
            ><td class="n fig">{say(f.interruptA, 'A')}</td><td class="n fig"
              >{f.shortCircuitA === null ? 'limited' : say(f.shortCircuitA, 'A')}</td
            ><td class="n fig">{f.distanceM === null ? '' : say(f.distanceM, 'm', session.units)}</td><td
              >{f.protects}{f.reliesOn ? `; relies on ${f.reliesOn}` : ''}</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
  {/if}
{/each}
<p class="lead">
  A fuse that cannot break what the bank pushes goes on burning: its interrupt rating stands over the short at its
  place. Volts and interrupt ratings are typical of the class; the data sheet of the one that is bought decides.
</p>

<style>
  h3 {
    font-weight: 700;
    margin-top: 8px;
  }
</style>
