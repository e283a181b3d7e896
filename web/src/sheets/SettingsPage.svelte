<script lang="ts">
  import { say } from '../ui/quantity'
  import { sheets } from './sheets.svelte'

  /** A card for each device, in the order its menu asks. */
  const cards = $derived(sheets.answer!.banks.flatMap((b) => b.cards.map((card) => ({ bank: b, card }))))
  const several = $derived(sheets.answer!.banks.length > 1)
</script>

<div class="cards">
  {#each cards as { bank, card } (bank.id + card.device)}
    <section class="card">
      <h3>{card.name}{several ? `, ${bank.name || bank.id}` : ''}</h3>
      <table>
        <thead
          ><tr
            ><th>setting</th><th class="n">set to</th><th class="n">found</th><th class="n">meter</th><th>done</th></tr
          ></thead
        >
        <tbody>
          {#each card.rows as r (r.setting)}
            <tr
              ><td>{r.label}</td><td class="n fig"
                ><b>{r.setTo === null ? (r.word ?? 'as it is') : say(r.setTo, r.unit)}</b></td
              ><td class={['n fig', r.must && 'must']}
                >{r.found === null ? (r.foundWord ?? '') : say(r.found, r.unit)}{r.must ? ' !' : ''}</td
              ><td class="n fig">{r.seen === null ? '' : say(r.seen, r.unit)}</td><td
                >{r.done ? `✓ ${r.date ?? ''}` : '☐'}</td
              ></tr
            >
          {/each}
        </tbody>
      </table>
      {#if card.nearest}<p>{card.nearest}</p>{/if}
    </section>
  {:else}<p>No device to set yet: chargers are put in at Charging.</p>{/each}
</div>
<p class="lead">
  No charger is connected before it is set. All figures are of the whole bank; where a device asks for one unit or one
  cell, divide. The makers’ sheets of cells and devices come first.
</p>

<style>
  .cards {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
    gap: 10px 24px;
  }
  .card {
    break-inside: avoid;
  }
  h3 {
    font-weight: 700;
    border-bottom: 1.2px solid var(--ink);
  }
  .must {
    font-weight: 700;
  }
</style>
