<script lang="ts">
  import { session } from '../app/session.svelte'
  import { num, say } from '../ui/quantity'
  import { sheets } from './sheets.svelte'

  /** What is cut, with what is pressed on and slid over either end; behind it the label sheet at true size. */
  const banks = $derived(sheets.answer!.banks.filter((b) => b.lists.cables.length > 0))
  const several = $derived(sheets.answer!.banks.length > 1)
</script>

{#each banks as b (b.id)}
  {#if several}<h3>{b.name || b.id}</h3>{/if}
  <table data-cuts={b.id}>
    <thead
      ><tr
        ><th>label</th><th>from</th><th>to</th><th>size</th><th>colour</th><th class="n">pieces</th><th class="n"
          >length</th
        ><th>lug and stud</th><th class="n">covers</th></tr
      ></thead
    >
    <tbody>
      {#each b.lists.cables as c (c.key)}
        <tr
          ><th class="fig">{c.label}</th><td>{c.from}</td><td>{c.to}</td><td class="fig">{c.size}</td><td>{c.colour}</td
          ><td class="n fig">{num(c.pieces)}</td><td class="n fig">{say(c.lengthM, 'm', session.units)}</td><td
            >{c.fromLug === c.toLug ? c.fromLug : `${c.fromLug}; ${c.toLug}`}</td
          ><td class="n fig">{c.covers || ''}</td></tr
        >
      {/each}
    </tbody>
  </table>
  <p class="lead">
    By the drum:
    {#each b.lists.totals as t, i (t.size + t.colour)}{i > 0 ? '; ' : ''}{t.size}
      {t.colour}
      <span class="fig">{say(t.metres, 'm', session.units)}</span>{/each}. Over every lug heat-shrink of 5 cm with glue,
    over each end a sleeve with its label before the lug is pressed on. Add what your lugs and bends ask for.
  </p>
{:else}<p>Nothing to cut yet: cables follow from the loads and the bank.</p>{/each}
<div class="labels" data-testid="labels">
  {#each sheets.answer!.labelSheets as svg, i (i)}
    <!-- eslint-disable-next-line svelte/no-at-html-tags -->
    <div class="label-sheet">{@html svg.replace(/^<\?xml[^>]*\?>\s*/, '').replace('<svg ', '<svg class="paper" ')}</div>
  {/each}
</div>

<style>
  h3 {
    font-weight: 700;
    margin-top: 8px;
  }
  .label-sheet {
    background: #fff;
    margin-top: 10px;
    border: 1px solid var(--hair);
    overflow-x: auto;
    width: fit-content;
    max-width: 100%;
  }
  @media print {
    .label-sheet {
      break-before: page;
      break-inside: avoid;
      border: 0;
      margin: 0;
    }
  }
</style>
