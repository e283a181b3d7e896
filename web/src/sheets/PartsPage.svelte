<script lang="ts">
  import type { LedgerRow } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num } from '../ui/quantity'
  import { sheets } from './sheets.svelte'

  /** Everything that is bought, by what it is for. */
  const WORDS: Record<LedgerRow['part']['group'], string> = {
    units: 'Units',
    fuses: 'Fuses and holders',
    switching: 'Switching, bars and measuring',
    devices: 'Devices',
    cable: 'Cable by the drum',
    lugs: 'Lugs, covers and sleeves',
    place: 'Box and holding',
    spares: 'Spares',
  }
  const parts = $derived(sheets.answer!.ledger.rows.filter((r) => !r.gone && r.kind !== 'copper'))
  const groups = $derived(
    Object.entries(WORDS)
      .map(([id, title]) => ({ id, title, rows: parts.filter((r) => r.part.group === id) }))
      .filter((g) => g.rows.length > 0),
  )
  const count = (n: number, unit: string) => `${num(n, unit ? 2 : 0)}${unit ? ` ${unit}` : ''}`
  const money = (v: number | null) => (v === null ? 'open' : num(v, 2))
</script>

<p class="lead" data-testid="parts-sum">
  <b>{sheets.answer!.parts.words}</b> in all; {sheets.answer!.parts.toBuy}{sheets.answer!.parts.paid
    ? `; paid so far ${sheets.answer!.parts.paid}`
    : ''}.
  {#if !session.design!.display.currency}Prices in the design’s own money.{/if}
</p>
<table>
  <thead
    ><tr
      ><th>tag</th><th>part</th><th>must be</th><th class="n">count</th><th class="n">to buy</th><th class="n">each</th
      ><th class="n">price</th><th class="n">paid</th></tr
    ></thead
  >
  {#each groups as g (g.id)}
    <tbody>
      <tr class="title"><th colspan="8" scope="rowgroup">{g.title}</th></tr>
      {#each g.rows as r (r.part.key)}
        <tr data-part={r.part.key}>
          <td class="fig">{r.part.tag}</td><td
            >{r.part.name}{#if r.touched}<em> {r.touched}</em>{/if}</td
          ><td>{r.part.spec}</td>
          <td class="n fig">{count(r.part.count, r.part.unit)}</td><td class="n fig"
            >{r.toBuy > 0 ? count(r.toBuy, r.part.unit) : '–'}</td
          ><td class="n fig">{r.part.each === 0 ? 'in it' : money(r.part.each)}</td><td class="n fig"
            >{r.part.each === 0 ? '' : money(r.part.price)}</td
          ><td class="n fig">{r.paid === null ? '' : num(r.paid, 2)}</td>
        </tr>
      {/each}
    </tbody>
  {/each}
</table>
