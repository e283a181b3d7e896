<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import { api } from '../api/client'
  import type { PriceSet } from '../api/client'
  import { session } from '../app/session.svelte'
  import { known, num } from '../ui/quantity'
  import { builds, letter } from './bench.svelte'
  import TakePrices from './TakePrices.svelte'

  /** Sets of prices by name and day, the verdict under each, in and out as CSV. */
  let { money }: { money: (value: number, decimals?: number) => string } = $props()
  let adding = $state(false)
  let told = $state('')
  const prices = $derived(session.design!.prices)
  const verdicts = $derived(builds.comparison?.underSets ?? [])
  const list = $derived(builds.comparison?.builds ?? [])
  const kinds: Record<PriceSet['kind'], string> = {
    list: 'list prices',
    sale: 'a sale',
    'second-hand': 'second-hand',
    'other-town': 'another town',
  }
  const rows = $derived([null, ...prices.sets])
  const verdictOf = (id: string | null) => verdicts.find((v) => v.set === id) ?? null
  const use = (id: string | null) => session.edit({ path: '/prices/inUse', value: id }, true)
  function drop(set: PriceSet) {
    session.edit(
      [
        ...(prices.inUse === set.id ? [{ path: '/prices/inUse', value: null }] : []),
        { path: '/prices/sets', value: prices.sets.filter((s) => s.id !== set.id) },
      ],
      true,
    )
  }
  async function save(id: string | null) {
    told = ''
    try {
      await api.savePrices(session.worked!, id)
    } catch (e) {
      told = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }
  /** What a set is, in a line; null: own prices and the catalogue's. */
  function about(set: PriceSet | null): string {
    if (!set)
      return `samples${prices.date ? ` of ${prices.date}` : ''}${
        prices.units.length > 0 ? `, ${prices.units.length} typed in` : ''
      }`
    const unknown = unknowns(set)
    return [
      `${kinds[set.kind]}, ${set.date ?? 'no date'}`,
      `${num(set.prices.length)} prices${unknown > 0 ? `, ${unknown} not known` : ''}`,
      `the rest ${set.rest === 'catalogue' ? 'as the catalogue has it' : 'not known'}`,
    ].join('; ')
  }
  const unknowns = (set: PriceSet) => set.prices.filter((p) => p.price === null).length
</script>

<p class="note">
  A set counts everywhere a price counts: in builds, in the parts list, in what a voltage costs. What is not known stays
  not known: such a build is shown without a price and never wins.
</p>
<div class="sets" role="radiogroup" aria-label="Prices that count" data-testid="price-sets">
  {#each rows as set (set?.id ?? '')}
    {@const v = verdictOf(set?.id ?? null)}
    {@const on = prices.inUse === (set?.id ?? null)}
    <div class={['set', on && 'on']} data-set={set?.id ?? 'own'}>
      <button type="button" role="radio" aria-checked={on} class="pick" onclick={() => use(set?.id ?? null)}>
        <span class="dot"></span>
        <span
          ><b>{set?.name ?? 'Own prices and the catalogue’s'}</b>
          <span class="note">{about(set)}</span></span
        >
      </button>
      {#if v}
        <p class="verdict">{v.sentence}.</p>
        <p class="note">
          {#each v.totals as total, i (i)}<span class="total"
              ><b class="fig">{letter(i)}</b>
              {known(total, (t) => money(t))}{list[i] && !list[i].fits ? ', has a fault: it does not win' : ''}</span
            >{/each}
        </p>
      {/if}
      <p class="acts">
        <button type="button" class="link-copper" onclick={() => save(set?.id ?? null)}>as CSV</button>
        {#if set}<button type="button" class="link-copper" aria-label="Remove {set.name}" onclick={() => drop(set)}
            ><X size={13} /> remove</button
          >{/if}
      </p>
    </div>
  {/each}
</div>
{#if verdicts.length === 0 && list.length > 0}<p class="note mt-1">
    With a second set the verdict stands under each: {list.map((b, i) => `${letter(i)} ${b.name}`).join(', ')}.
  </p>{/if}
{#if told}<p class="note" role="alert">{told}</p>{/if}
{#if adding}<TakePrices onleave={() => (adding = false)} />{:else}
  <button type="button" class="btn btn-outline btn-sm mt-2" onclick={() => (adding = true)}
    >Bring in a set of prices</button
  >
{/if}

<style>
  .sets {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
    margin-top: 8px;
  }
  .set {
    border: 1px solid var(--ink-3);
    padding: 6px 10px;
  }
  .set.on {
    border: 2px solid var(--copper);
    padding: 5px 9px;
  }
  .pick {
    display: flex;
    gap: 9px;
    align-items: baseline;
    text-align: left;
    cursor: pointer;
    min-height: 26px;
    font-size: 13.5px;
  }
  .pick .note {
    display: block;
  }
  .dot {
    width: 11px;
    height: 11px;
    flex: none;
    border: 1.4px solid var(--ink-3);
    border-radius: 50%;
    transform: translateY(1px);
  }
  .on .dot {
    background: var(--copper);
    border-color: var(--copper);
  }
  .verdict {
    font-weight: 600;
    margin: 3px 0 0 20px;
  }
  .set > .note,
  .acts {
    margin-left: 20px;
  }
  .total {
    margin-right: 14px;
  }
  .acts {
    display: flex;
    gap: 14px;
    font-size: 12.5px;
  }
  .acts button {
    min-height: 24px;
    display: inline-flex;
    gap: 4px;
    align-items: center;
  }
  @media (max-width: 939px) {
    .acts button,
    .pick {
      min-height: 44px;
    }
  }
</style>
