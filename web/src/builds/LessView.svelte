<script lang="ts">
  import type { Change } from '../api/client'
  import { session } from '../app/session.svelte'
  import { known, num, say } from '../ui/quantity'
  import { plans } from './plans.svelte'

  /** The cheapest changes of loads or hours that make the next smaller build enough. */
  let { money }: { money: (value: number, decimals?: number) => string } = $props()
  $effect(() => {
    void session.evaluation
    plans.askLess()
  })
  const less = $derived(plans.less)
</script>

{#if !less}<p class="note" role="status">{plans.away ?? 'Trying what could be left out…'}</p>
{:else}
  {#if less.smaller}<p class="note" data-testid="less-from">
      {less.asked} are asked for; the next smaller build has {less.smaller}. What must not go dark is left alone.
    </p>{/if}
  {#if less.not}<p class="note" data-testid="less-not">{less.not}.</p>{/if}
  <div class="ways" aria-busy={plans.lessRunning}>
    {#each less.ways as way, i (i)}
      <section class="way" data-way={i}>
        <h3>{way.givesUp.join(', and ')}</h3>
        <p class="fig big">
          {way.saves === null
            ? 'saves what is not known'
            : `${way.saves >= 0 ? 'saves' : 'costs'} ${money(Math.abs(way.saves))}`}
        </p>
        <p class="note">
          {way.lessWh > 0 ? `${say(way.lessWh, 'Wh')} a day less` : 'No energy is given up'}. {way.build.name}{way.build
            .inverter
            ? ` with ${way.build.inverter}`
            : ''}: {known(way.build.bill.unknown.length ? null : way.build.bill.total, (v) => money(v))} with everything it
          needs,
          {say(way.build.usableWh, 'Wh')} usable, {num(way.build.massKg ?? 0)} kg.
        </p>
        <button
          type="button"
          class="btn btn-outline btn-sm mt-1"
          onclick={() => session.edit(way.changes as unknown as Change[], true)}>Do it this way</button
        >
      </section>
    {/each}
  </div>
  {#if less.ways.length > 0}<p class="note mt-2">
      Each is the whole design worked out with these changes and the smaller build, without a fault. One press is one
      step of undo.
    </p>{/if}
{/if}

<style>
  .ways {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 12px;
    margin-top: 8px;
  }
  .way {
    border: 1px solid var(--ink-3);
    padding: 9px 12px;
  }
  h3 {
    font-weight: 700;
    font-size: 14px;
  }
  .big {
    font-size: 20px;
    margin: 2px 0;
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
    }
  }
</style>
