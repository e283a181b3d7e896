<script lang="ts">
  import type { LedgerRow } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num } from '../ui/quantity'
  import { readNumber } from '../ui/written'
  import { changes, furthestOf, marked, STOPS, topOf, today, WORDS } from './ledger'
  import { sheets } from './sheets.svelte'

  /** What is known of a part that is in hand: how many, when, what it cost, why it counts as proven. */
  let { row }: { row: LedgerRow } = $props()
  const entry = $derived(row.entry === null ? null : (session.design!.ledger[row.entry] ?? null))
  const stop = $derived(sheets.waits ?? furthestOf(row))
  const mark = $derived(entry?.marks.find((m) => m.stop === STOPS[stop - 1]) ?? null)
  let [reason, wrong] = $state(['', ''])

  const put = (value: Parameters<typeof changes>[2]) => session.edit(changes(session.design!, row, value), true)

  function number(e: Event, most: number, then: (value: number | null) => void) {
    const input = e.currentTarget as HTMLInputElement
    wrong = ''
    if (input.value.trim() === '') return then(null)
    const read = readNumber(input.value)
    if (!read || read.value < 0 || read.value > most) wrong = `a number from 0 to ${num(most)}`
    else then(read.value)
  }
  const setMark = (change: Partial<NonNullable<typeof mark>>) =>
    put({ marks: entry!.marks.map((m) => (m === mark ? { ...m, ...change } : m)) })
</script>

<div class="detail" data-detail={row.part.key}>
  <p class="whole">{row.part.name}: {row.part.spec}</p>
  {#if !row.gone}
    <span class="stops" role="group" aria-label="How far it has come">
      {#each WORDS.slice(0, topOf(row) + 1) as word, n (word)}
        <button type="button" aria-pressed={n === stop} data-to={word} onclick={() => sheets.move(row, n)}
          >{word}</button
        >
      {/each}
    </span>
  {/if}
  {#if sheets.waits === 4}
    <form
      onsubmit={(e) => {
        e.preventDefault()
        if (reason.trim()) sheets.move(row, 4, row.part.count, reason.trim())
      }}
    >
      <label
        >what shows that it is proven?<input
          bind:value={reason}
          maxlength="400"
          data-path="reason"
          placeholder="such as 0.4 mV across both lugs at 40 A"
        /></label
      >
      <button type="submit" class="link-copper" disabled={!reason.trim()}>it is proven</button>
      <button type="button" class="link-copper" onclick={() => (sheets.waits = null)}>not yet</button>
    </form>
  {:else if mark}
    <span class="fields">
      {#if row.part.count !== 1}
        <label
          >{WORDS[stop]}, of {num(row.part.count, row.part.unit ? 2 : 0)}
          {row.part.unit}<input
            class="short"
            value={num(mark.count, row.part.unit ? 2 : 0)}
            data-path="count"
            onchange={(e) => number(e, row.part.count, (v) => v !== null && sheets.move(row, stop, v, mark.reason))}
          /></label
        >
      {/if}
      <label
        >on<input
          type="date"
          value={mark.date ?? ''}
          onchange={(e) => setMark({ date: e.currentTarget.value || null })}
        /></label
      >
      <label
        >paid for all<input
          class="short"
          data-path="paid"
          placeholder={row.part.price === null ? 'open' : ''}
          value={entry?.paid === null || entry?.paid === undefined ? '' : num(entry.paid, 2)}
          onchange={(e) => number(e, 10_000_000, (paid) => put({ paid }))}
        /></label
      >
      {#if mark.reason}<span class="because">proven: {mark.reason}</span>{/if}
    </span>
  {/if}
  {#if wrong}<p role="alert">{wrong}</p>{/if}
  {#if row.touched && !row.gone}
    <button
      type="button"
      class="link-copper"
      data-fits
      onclick={() => put({ wanted: { name: row.part.name, spec: row.part.spec, count: row.part.count } })}
      >what was ordered still fits</button
    >
    <button type="button" class="link-copper" onclick={() => put({ marks: marked([], 0, 0, today()) })}
      >order it anew</button
    >
  {/if}
  {#if row.gone}
    <button type="button" class="link-copper" onclick={() => put({ marks: [], paid: entry?.paid ?? null })}
      >it is given back, or kept for something else</button
    >
  {/if}
</div>

<style>
  .detail {
    grid-column: 1 / -1;
    padding: 2px 0 6px 8px;
    border-left: 2px solid var(--ink);
    margin: 2px 0 4px;
    font-size: 12px;
    background: var(--sheet);
  }
  .whole {
    color: var(--ink-2);
  }
  .stops,
  .fields,
  form {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: flex-end;
    margin-top: 3px;
  }
  .stops {
    gap: 0;
  }
  .stops button {
    border: 1px solid var(--ink-3);
    margin-left: -1px;
    padding: 0 7px;
    min-height: 24px;
    cursor: pointer;
  }
  .stops button[aria-pressed='true'] {
    background: var(--ink);
    color: var(--sheet);
  }
  label {
    display: inline-flex;
    flex-direction: column;
    font-size: 11.5px;
    color: var(--ink-2);
  }
  form label {
    width: 100%;
  }
  input {
    font: inherit;
    font-size: 12.5px;
    border: 1px solid var(--ink-3);
    background: var(--sheet);
    color: var(--ink);
    height: 24px;
    padding: 0 4px;
  }
  .short {
    width: 76px;
  }
  .because {
    width: 100%;
  }
  .link-copper {
    min-height: 24px;
    margin-right: 10px;
  }
  .link-copper:disabled {
    color: var(--ink-3);
    cursor: default;
  }
  @media (max-width: 939px) {
    .stops button,
    input,
    .link-copper {
      min-height: 44px;
    }
    .stops button {
      padding: 0 9px;
    }
  }
</style>
