<script lang="ts">
  import { tick } from 'svelte'
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import Figures from '../../ui/Figures.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { clock, say, sayVolts } from '../../ui/quantity'
  import DayProfile from './DayProfile.svelte'
  import DayStrip from './DayStrip.svelte'
  import LoadFields from './LoadFields.svelte'
  import { newLoad, summary } from './loads'

  const e = $derived(session.result)
  const loads = $derived(session.bank!.demand.loads)
  let open = $state<string | null>(null)
  let list: HTMLElement

  async function add() {
    const load = newLoad()
    session.edit({ path: '~/demand/loads/-', value: load }, true)
    open = load.id
    await tick()
    list.querySelector<HTMLInputElement>('.open-fields input')?.focus()
  }

  function remove(index: number) {
    session.edit({ path: '~/demand/loads', value: loads.filter((_, i) => i !== index) }, true)
    open = null
  }
</script>

{#if e?.energy && e.voltage && e.loads}
  <div class="mt-1">
    <Figures
      items={[
        { ptr: '/energy/energyBankWh', unit: 'Wh', label: 'a day, from the bank', testid: 'energy-bank' },
        {
          ptr: '/energy/ahPerDay',
          unit: 'Ah',
          label: `a day, at ${sayVolts(e.voltage.nominalV)}`,
          testid: 'ah-per-day',
        },
        { ptr: '/loads/peakAcW', unit: 'W', label: 'AC at once', note: clock(e.loads.peak.fromH), testid: 'peak-ac' },
        {
          ptr: '/loads/surgeDemandW',
          unit: 'W',
          label: 'worst instant',
          note: e.loads.worst.starting ? `for ${say(e.loads.worst.startSeconds, 's')}` : undefined,
          testid: 'surge',
        },
        { ptr: '/loads/peakDcW', unit: 'W', label: 'DC at once', testid: 'peak-dc' },
      ]}
    />
  </div>
{/if}

<section class="rows" aria-label="Loads over the day" bind:this={list}>
  {#if loads.length > 0}
    <div class="row head caption">
      <span><button type="button" class="btn btn-outline btn-xs" onclick={add}>Add a load</button></span>
      <span class="hours" aria-hidden="true"
        >{#each [0, 6, 12, 18, 24] as h (h)}<span>{clock(h)}</span>{/each}</span
      >
      <span class="text-right">at the bank</span>
      <span class="text-right">share</span>
    </div>
  {/if}
  {#each loads as load, i (load.id)}
    <div class={['row', open === load.id && 'is-open']}>
      <button
        type="button"
        class="what"
        aria-expanded={open === load.id}
        onclick={() => (open = open === load.id ? null : load.id)}
      >
        <b>{load.name || 'New load'}</b>
        <span class="caption">{summary(load)}</span>
      </button>
      <DayStrip windows={load.windows} hours={load.hours} hatched={load.kind !== 'ac'} />
      <span class="text-right"
        ><Fig ptr="/energy/rows/{i}/bankWh" unit="Wh" label="{load.name}, a day at the bank" size={15} /></span
      >
      <span class="text-right share">
        <span class="bar" style:width="{(e?.energy?.rows[i]?.share ?? 0) * 100}%"></span>
        <Fig ptr="/energy/rows/{i}/share" unit="fraction" label="{load.name}, share of the day" size={13} />
      </span>
    </div>
    {#if open === load.id}
      <div class="open-fields"><LoadFields {load} index={i} onremove={() => remove(i)} /></div>
    {/if}
  {/each}
  {#if e?.inverter?.item && e.energy && loads.length > 0}
    <div class="row">
      <span class="what idle">
        <b>Inverter, idling</b>
        <span class="inline-flex items-center gap-1">
          <QuantityField
            label="hours a day the inverter is left on"
            hideLabel
            kind="hours"
            path="/inverters/0/onH"
            advised={e.energy.inverterOnH}
            width="56px"
          />
          <span class="caption">left on</span>
        </span>
      </span>
      <DayStrip windows={null} hours={e.energy.inverterOnH} />
      <span class="text-right"><Fig ptr="/energy/idleWh" unit="Wh" label="inverter idling, a day" size={15} /></span>
      <span class="text-right share">
        <span class="bar" style:width="{e.energy.idleShare * 100}%"></span>
        <Fig ptr="/energy/idleShare" unit="fraction" label="idle draw, share of the day" size={13} />
      </span>
    </div>
  {/if}
</section>

{#if loads.length === 0}
  <div class="my-1.5 flex items-center gap-4">
    <button type="button" class="btn btn-sm btn-primary" onclick={add}>Add a load</button>
    <p class="note">
      Name it, say how it is fed, what it draws (60 W, or 5 A) and when it runs (10:00-10:10) or for how long (4 h).
    </p>
  </div>
{/if}

{#if e?.loads && e.energy && e.energy.energyBankWh > 0}
  <DayProfile left={258} right={144} />
{/if}

<style>
  .rows {
    margin-top: 8px;
  }
  .row {
    display: grid;
    grid-template-columns: 250px minmax(0, 1fr) 62px 66px;
    gap: 8px;
    align-items: center;
    min-height: 27px;
    border-top: 1px solid var(--grid);
  }
  .row.head {
    min-height: 26px;
    border-top: 0;
  }
  .is-open {
    border-top-color: var(--ink);
  }
  .row > :global(svg) {
    height: 22px;
  }
  .what {
    display: flex;
    align-items: baseline;
    gap: 7px;
    text-align: left;
    min-width: 0;
    cursor: pointer;
    padding: 2px 0;
  }
  .what > :global(*) {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .what b {
    flex-shrink: 0;
    max-width: 60%;
  }
  .idle {
    cursor: default;
    align-items: center;
    justify-content: space-between;
  }
  .idle > :global(*) {
    overflow: visible;
  }
  .hours {
    display: flex;
    justify-content: space-between;
  }
  .share {
    position: relative;
  }
  .bar {
    position: absolute;
    right: 0;
    bottom: -1px;
    height: 3px;
    background: var(--ink);
  }
  @media (max-width: 939px) {
    .row {
      grid-template-columns: minmax(0, 1fr) 62px 60px;
      padding: 4px 0;
    }
    .row > :global(svg) {
      grid-column: 1 / -1;
      grid-row: 2;
    }
    .head > :not(:first-child) {
      display: none;
    }
    .what {
      min-height: 44px;
      flex-direction: column;
      gap: 0;
    }
  }
</style>
