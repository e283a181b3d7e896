<script lang="ts">
  import type { Schedules } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { num, say, sayVolts } from '../../ui/quantity'

  let { lists, totals = true }: { lists: Schedules; totals?: boolean } = $props()
  const metres = (m: number) => say(m, 'm', session.units)
</script>

<h3 class="font-bold text-[13.5px] mt-2">Fuses</h3>
<div class="overflow-x-auto">
  <table class="table table-xs" data-testid="fuse-schedule">
    <thead
      ><tr
        ><th scope="col">fuse</th><th scope="col">class</th><th scope="col">rating</th><th scope="col">volts</th><th
          scope="col">breaks</th
        ><th scope="col">a short there</th><th scope="col">from its source</th><th scope="col">protects</th></tr
      ></thead
    >
    <tbody>
      {#each lists.fuses as f, i (i)}
        <tr>
          <th scope="row">{f.count > 1 ? `${f.count} × ` : ''}{f.name}</th>
          <td>{f.class}{f.chosen ? ', chosen' : ''}</td>
          <td class="fig">{f.ratingA === null ? 'none made' : say(f.ratingA, 'rating')}</td>
          <td class="fig">{sayVolts(f.maxDcV)} on {sayVolts(f.greatestV)}</td>
          <td class="fig">{say(f.interruptA, 'A')}</td>
          <td class="fig"
            >{f.shortCircuitA === null ? 'converter limits it' : say(f.shortCircuitA, 'A')}{f.reliesOn ? ' *' : ''}</td
          >
          <td class="fig">{f.distanceM === null ? 'at each string' : metres(f.distanceM)}</td>
          <td>{f.protects}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
{#if lists.fuses.some((f) => f.reliesOn)}<p class="caption">
    * relies on {lists.fuses.find((f) => f.reliesOn)!.reliesOn}, which must stay of a current-limiting class
  </p>{/if}
<h3 class="font-bold text-[13.5px] mt-2">Cables to cut</h3>
<div class="overflow-x-auto">
  <table class="table table-xs" data-testid="cut-list">
    <thead
      ><tr
        ><th scope="col">label</th><th scope="col">from</th><th scope="col">to</th><th scope="col">colour</th><th
          scope="col">size</th
        ><th scope="col">pieces</th><th scope="col">length</th><th scope="col">lug at from</th><th scope="col"
          >lug at to</th
        ><th scope="col">covers</th></tr
      ></thead
    >
    <tbody>
      {#each lists.cables as c (c.label)}
        <tr>
          <th scope="row">{c.label}</th>
          <td>{c.from}</td>
          <td>{c.to}</td>
          <td>{c.colour}</td>
          <td class="fig">{c.size}</td>
          <td class="fig">{c.pieces}</td>
          <td class="fig">{metres(c.lengthM)}</td>
          <td>{c.fromLug}</td>
          <td>{c.toLug}</td>
          <td class="fig">{c.covers || ''}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</div>
<h3 class="font-bold text-[13.5px] mt-2">Besides</h3>
<p class="text-[12.5px]" data-testid="parts">
  {#each lists.parts as p, i (p.name)}{i > 0 ? '; ' : ''}{p.count > 1 ? `${p.count} × ` : ''}<b>{p.name}</b>, {p.least}{/each}.
</p>
{#if totals}
  <h3 class="font-bold text-[13.5px] mt-2">To buy</h3>
  <p class="text-[12.5px]" data-testid="cable-totals">
    {#each lists.totals as t, i (t.size + t.colour)}{i > 0 ? '; ' : ''}<span class="fig"
        >{metres(Number(t.metres.toFixed(2)))}</span
      >
      {t.colour}
      {t.size}{t.lugs > 0 ? `, ${num(t.lugs)} lugs` : ''}{/each}.
  </p>
{/if}

<style>
  .table th,
  .table td {
    padding: 2px 6px;
    font-size: 12px;
  }
  .table .fig {
    font-size: 13px;
  }
</style>
