<script lang="ts">
  import type { Charging } from '../api/client'
  import { num, say } from '../ui/quantity'

  /** The settings cards on paper: what each menu asks, in its order, with a box to tick and a line for the meter. */
  let { charging }: { charging: Charging } = $props()
  const cards = $derived(charging.cards.filter((c) => c.device !== 'monitor' || charging.sources.length > 0))
  const write = (row: Charging['cards'][number]['rows'][number]) =>
    row.word ??
    (row.setTo === null
      ? '–'
      : row.unit === 'fraction'
        ? `${num(row.setTo * 100, 1)} %`
        : say(row.setTo, row.unit === 'V' ? 'class' : row.unit))
</script>

<h2>Settings, in the order each menu asks; typical values, the makers’ come first</h2>
<div class="cards" data-testid="summary-cards">
  {#each cards as card (card.device)}
    <p>
      <b>{card.name}</b>
      {#each card.rows as row (row.setting)}
        <span class="row"
          >{row.label} <span class="fig">{write(row)}</span>
          <span class="box">{row.done ? '✓' : ''}</span>{#if row.seen !== null}<span class="fig seen"
              >{num(row.seen, 2)}</span
            >{/if}</span
        >
      {/each}
    </p>
  {/each}
</div>

<style>
  h2 {
    font-size: 12px;
    font-weight: 700;
    margin: 7px 0 2px;
    border-bottom: 1px solid #999;
  }
  .cards p {
    margin: 1px 0;
  }
  .row {
    white-space: nowrap;
    margin-left: 8px;
  }
  .box {
    display: inline-block;
    width: 9px;
    height: 9px;
    border: 1px solid var(--ink);
    line-height: 9px;
    font-size: 9px;
  }
  .seen {
    margin-left: 3px;
    text-decoration: underline;
  }
</style>
