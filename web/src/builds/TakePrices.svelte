<script lang="ts">
  import { api, Refused } from '../api/client'
  import type { PriceCsv, PriceSet } from '../api/client'
  import { session } from '../app/session.svelte'
  import { withChanges } from '../ui/pointer'
  import { num } from '../ui/quantity'

  /** A set of prices brought in as CSV: named, dated, and what it does not list said. */
  let { onleave }: { onleave: () => void } = $props()
  let csv = $state('')
  let answer = $state.raw<PriceCsv | null>(null)
  let told = $state('')
  let name = $state('')
  let date = $state(new Date().toISOString().slice(0, 10))
  let kind = $state<PriceSet['kind']>('sale')
  let rest = $state<PriceSet['rest']>('catalogue')
  let inUse = $state(true)

  async function read(text: string) {
    csv = text
    told = ''
    try {
      answer = await api.readPrices(text)
    } catch (e) {
      told = e instanceof Error ? e.message : 'It could not be read.'
    }
  }
  async function take() {
    told = ''
    const called = name.trim()
    if (called === '') {
      told = 'Say what it is called: the shop, the town, the day of the sale.'
      return
    }
    if (date !== '' && !/^\d{4}-\d\d-\d\d$/.test(date)) {
      told = 'The date is read as 2026-11-30, or left empty.'
      return
    }
    const set: PriceSet = {
      id: `prices-${Date.now().toString(36)}`,
      name: called,
      date: date || null,
      kind,
      rest,
      prices: answer!.prices,
    }
    const changes = [
      { path: '/prices/sets', value: [...session.design!.prices.sets, set] },
      ...(inUse ? [{ path: '/prices/inUse', value: set.id }] : []),
    ]
    try {
      // What the server would not take never becomes an edit.
      await api.evaluate(withChanges(session.design!, changes))
      session.edit(changes, true)
      onleave()
    } catch (e) {
      told =
        e instanceof Refused && e.faults.length > 0
          ? `${e.faults[0].pointer}: ${e.faults[0].reason}`
          : e instanceof Error
            ? e.message
            : 'It could not be taken in.'
    }
  }
</script>

<section class="take" aria-label="Bring in a set of prices">
  <label
    ><span class="caption"
      >Paste it here, or open a file: <code>kind,key,size,price,in_stock</code>. Units, inverters and fuses go by their
      key, parts by their size; an empty price is one that nobody knows. “as CSV” above writes such a list to fill in.</span
    ><textarea
      class="textarea w-full"
      rows="6"
      spellcheck="false"
      placeholder={'kind,key,size,price,in_stock\nunit,lfp-12-100,,245,yes\ncable,,50,8.5,'}
      bind:value={csv}></textarea></label
  >
  <div class="row">
    <button type="button" class="btn btn-outline btn-sm" onclick={() => read(csv)} disabled={csv.trim() === ''}
      >Read it</button
    >
    <label class="btn btn-outline btn-sm"
      >Open a file<input
        type="file"
        accept=".csv,.txt,text/csv"
        class="sr-only"
        onchange={async (e) => {
          const file = e.currentTarget.files?.[0]
          if (file) await read(await file.text())
        }}
      /></label
    >
    <button type="button" class="link-copper text-[12.5px]" onclick={onleave}>back</button>
  </div>
  {#if answer}
    <p class="note" data-testid="prices-read">
      {num(answer.prices.length)} prices, {answer.prices.filter((p) => p.price === null).length} of them not known.
    </p>
    {#each answer.bad.slice(0, 12) as bad (bad.line)}<p class="note">line {bad.line}: {bad.reason}</p>{/each}
    {#if answer.bad.length > 12}<p class="note">and {answer.bad.length - 12} lines more</p>{/if}
    {#if answer.prices.length > 0}
      <div class="row">
        <label
          ><span class="caption">what it is called</span><input
            class="input input-sm"
            maxlength="60"
            bind:value={name}
          /></label
        >
        <label
          ><span class="caption">date</span><input
            class="input input-sm w-28"
            maxlength="10"
            bind:value={date}
          /></label
        >
        <label
          ><span class="caption">what it is</span><select class="select select-sm" bind:value={kind}>
            <option value="list">list prices</option><option value="sale">a sale</option><option value="second-hand"
              >second-hand</option
            ><option value="other-town">another town</option></select
          ></label
        >
        <label
          ><span class="caption">what it does not list</span><select class="select select-sm" bind:value={rest}>
            <option value="catalogue">costs as in the catalogue</option><option value="unknown">is not known</option
            ></select
          ></label
        >
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={inUse} /> counts from now on</label
        >
        <button type="button" class="btn btn-primary btn-sm" onclick={take}>Take it in</button>
      </div>
    {/if}
  {/if}
  <p class="note" role="alert" data-testid="prices-told">{told}</p>
</section>

<style>
  .take {
    border: 1px solid var(--ink);
    padding: 8px 12px;
    margin-top: 10px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: flex-end;
    margin-top: 6px;
  }
  .row label:not(:global(.btn)) {
    display: inline-flex;
    flex-direction: column;
  }
  .row .tick {
    flex-direction: row !important;
    gap: 6px;
    align-items: center;
    min-height: 32px;
    font-size: 12.5px;
  }
  code {
    font-size: 12px;
  }
</style>
