<script lang="ts">
  import type { LedgerRow } from '../api/client'
  import LedgerBar from './LedgerBar.svelte'
  import LedgerDetail from './LedgerDetail.svelte'
  import { KEYS, topOf, WORDS } from './ledger'
  import { sheets } from './sheets.svelte'

  /** One row a part, with how far it has come; what is asked for next has an open square. */
  const ledger = $derived(sheets.answer!.ledger)
  const zones = $derived(sheets.answer!.drawing.zones)
  const several = $derived(sheets.answer!.banks.length > 1)
  const groups = $derived(
    [
      ...sheets.answer!.banks.flatMap((bank) =>
        (['part', 'copper'] as const).map((kind) => ({
          id: bank.id + kind,
          title: several && kind === 'part' ? bank.name || bank.id : '',
          rows: ledger.rows.filter((r) => !r.gone && r.kind === kind && r.part.bank === bank.id),
        })),
      ),
      { id: 'gone', title: 'No longer in the design', rows: ledger.rows.filter((r) => r.gone) },
    ].filter((g) => g.rows.length > 0),
  )
  const stores = $derived(ledger.rows.filter((r) => !r.gone && r.kind === 'store'))
  /** The part that forbids the next step, and what may be done next. */
  const asked = $derived(
    new Map([
      ...(ledger.acts[0]?.stop
        ? ledger.acts[0].keys.map((k) => [k, WORDS.indexOf(ledger.acts[0].stop!)] as const)
        : []),
      ...(ledger.bans.length > 0 ? [[ledger.bans[0].key, 3] as const] : []),
    ]),
  )
  const forbids = $derived(ledger.bans[0]?.key)

  function key(e: KeyboardEvent, row: LedgerRow) {
    if (e.altKey || e.ctrlKey || e.metaKey) return
    const list = [...document.querySelectorAll<HTMLElement>('[data-row]')]
    const here = list.findIndex((x) => x === e.currentTarget)
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      e.preventDefault()
      list[here + (e.key === 'ArrowDown' ? 1 : -1)]?.focus()
    } else if (e.key.toLowerCase() in KEYS) {
      const stop = KEYS[e.key.toLowerCase()]
      if (stop > topOf(row)) return
      e.preventDefault()
      sheets.move(row, stop)
    }
  }
</script>

{#snippet line(row: LedgerRow)}
  <div class={['row', row.part.key === forbids && 'forbids', row.touched && 'touched']}>
    <button
      type="button"
      class="name"
      data-row={row.part.key}
      aria-expanded={sheets.hand === row.part.key}
      onclick={() => sheets.take(sheets.hand === row.part.key ? null : row.part.key)}
      onkeydown={(e) => key(e, row)}
      title="{row.part.name}, {row.part.spec}"
    >
      <span class="fig tag">{row.part.tag}</span>
      <span class="what">{row.kind === 'copper' ? row.part.spec : row.part.name}</span>
      <span class="zone">{zones[row.part.key] ?? ''}</span>
    </button>
    <LedgerBar {row} asked={asked.get(row.part.key) ?? null} />
    {#if row.touched}<p class="changed" data-touched>{row.touched}</p>{/if}
    {#if sheets.hand === row.part.key}<LedgerDetail {row} />{/if}
  </div>
{/snippet}

<section class="ledger" aria-label="The ledger of parts">
  <div class="top">
    <h2>The ledger of parts</h2>
    <span class="stops" aria-hidden="true"
      ><i>planned</i><i class="low">ordered</i><i>here</i><i class="low">fitted</i><i>proven</i></span
    >
  </div>
  {#each groups as g (g.id)}
    <div class="group" data-group={g.id}>
      {#if g.title}<h3>{g.title}</h3>{/if}
      {#each g.rows as row (row.part.key)}{@render line(row)}{/each}
    </div>
  {/each}
  <details class="group" data-group="stores">
    <summary
      >And from the store <span class="caption">{stores.length}: drums, lugs, covers, holders, spares</span></summary
    >
    {#each stores as row (row.part.key)}{@render line(row)}{/each}
  </details>
  <p class="note sum" data-testid="ledger-sum">
    <b>{ledger.count} parts</b>: {ledger.at
      .map((n, i) => [n, WORDS[i]] as const)
      .filter(([n]) => n > 0)
      .reverse()
      .map(([n, word]) => `${n} ${word}`)
      .join(', ')}; {ledger.toBuy}{sheets.answer!.parts.paid ? `; paid ${sheets.answer!.parts.paid}` : ''}.
  </p>
  <p class="caption">
    Press or drag a bar to its stop; on a row <b>o h f</b> are ordered, here, fitted, <b>v</b> proven, <b>p</b> planned again;
    arrows walk.
  </p>
</section>

<style>
  .top {
    display: flex;
    justify-content: space-between;
    align-items: flex-end;
    position: sticky;
    top: 0;
    z-index: 2;
    background: var(--sheet);
    padding: 4px 0 2px;
  }
  h2 {
    font-size: 13px;
    font-weight: 700;
  }
  h3 {
    font-size: 12px;
    font-weight: 700;
    padding-top: 4px;
  }
  .stops {
    display: flex;
    justify-content: space-between;
    width: 130px;
    font-size: 11px;
    line-height: 12px;
    color: var(--ink-2);
    height: 26px;
  }
  .stops i {
    font-style: normal;
    width: 0;
    display: flex;
    justify-content: center;
    white-space: nowrap;
    margin-inline: 10px 8px;
  }
  .stops .low {
    padding-top: 13px;
  }
  .group {
    border-top: 1px solid var(--hair);
    padding: 2px 0;
  }
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 130px;
    align-items: center;
    padding-inline: 4px;
    margin-inline: -4px;
  }
  .forbids {
    background: var(--tint);
  }
  .touched {
    background: repeating-linear-gradient(135deg, transparent 0 5px, var(--grid) 5px 6px);
  }
  .name {
    display: grid;
    grid-template-columns: 40px minmax(0, 1fr) auto;
    align-items: center;
    gap: 4px;
    min-height: 24px;
    text-align: left;
    font-size: 12px;
    cursor: pointer;
  }
  .tag {
    font-size: 12px;
    white-space: nowrap;
  }
  .what {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .zone {
    font-size: 11px;
    color: var(--ink-3);
    padding-right: 6px;
  }
  [data-group='stores'] .name {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  [data-group='stores'] .tag {
    display: none;
  }
  .changed {
    grid-column: 1 / 3;
    font-size: 11.5px;
    background: var(--sheet);
    width: fit-content;
    padding-right: 4px;
    font-weight: 600;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 26px;
    font-size: 12.5px;
  }
  .sum {
    border-top: 1px solid var(--hair);
    padding-top: 4px;
  }
  .row {
    scroll-margin-top: 40px;
  }
  @media (max-width: 939px) {
    .top {
      position: static;
    }
    .row {
      grid-template-columns: minmax(0, 1fr);
      border-bottom: 1px solid var(--grid);
      padding-block: 4px 2px;
    }
    .changed {
      grid-column: 1;
    }
    .name {
      min-height: 26px;
      font-size: 13.5px;
    }
    .stops {
      display: none;
    }
    summary {
      min-height: 44px;
    }
  }
</style>
