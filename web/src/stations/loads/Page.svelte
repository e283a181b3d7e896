<script lang="ts">
  import { tick } from 'svelte'
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { stops } from '../../drawing/stops'
  import Fig from '../../ui/Fig.svelte'
  import Figures from '../../ui/Figures.svelte'
  import { clock, say, sayVolts } from '../../ui/quantity'
  import AsTable from '../../ui/AsTable.svelte'
  import AddLoad from './AddLoad.svelte'
  import { DayAxis } from '../../ui/dayAxis'
  import DayProfile from './DayProfile.svelte'
  import DayStrip from './DayStrip.svelte'
  import IdleRow from './IdleRow.svelte'
  import LoadFields from './LoadFields.svelte'
  import LoadLists from './LoadLists.svelte'
  import { newLoad, summary } from './loads'
  import OneFigure from './OneFigure.svelte'
  import StatesDemand from './StatesDemand.svelte'
  import WaysIn from './WaysIn.svelte'

  const e = $derived(session.result)
  const demand = $derived(session.bank!.demand)
  const loads = $derived(demand.loads)
  let open = $state<string | null>(null)
  let lists = $state(false)
  let list = $state<HTMLElement>()

  // Which day is shown: the one that sizes the bank, until another is asked for.
  let picked = $state<'winter' | 'summer' | null>(null)
  const seasons = $derived(e?.energy?.seasons ?? [])
  const season = $derived(seasons.length === 0 ? 'both' : (picked ?? e!.energy!.sizes))
  const nth = $derived(seasons.findIndex((s) => s.season === season))
  /** A figure of the day that is shown. */
  const day = (field: string) => (nth < 0 ? `/energy${field}` : `/energy/seasons/${nth}${field}`)
  const ran = (field: string) => (nth < 0 ? `/loads${field}` : `/loads/seasons/${nth}${field}`)
  const shown = $derived(nth < 0 ? e?.energy : seasons[nth])
  const running = $derived(nth < 0 ? e?.loads : e?.loads?.seasons[nth])

  // The hours on paper; strips and profile share them.
  let stretched = $state<number | null>(null)
  let hours = $state<HTMLElement>()
  let wide = $state(600)
  let left = $state(0)
  let page = $state(1280)
  let span = $state(900)
  const narrow = $derived(page < 940)
  $effect(() => {
    void wide
    left = hours?.offsetLeft ?? 0
  })
  const axis = $derived(new DayAxis(0, wide, stretched))
  const alone = $derived(narrow || demand.by !== 'loads')
  const below = $derived(new DayAxis(alone ? 48 : left, alone ? span - 52 : wide, stretched))

  async function add(load: Load = newLoad()) {
    session.edit({ path: '~/demand/loads/-', value: load }, true)
    open = load.id
    await tick()
    const field = list?.querySelector<HTMLInputElement>('.open-fields input')
    field?.focus()
    field?.scrollIntoView({ block: 'nearest' })
  }

  async function look(id: string) {
    open = open === id ? null : id
    await tick()
    list?.querySelector('.open-fields')?.scrollIntoView({ block: 'nearest' })
  }

  function remove(index: number) {
    session.edit({ path: '~/demand/loads', value: loads.filter((_, i) => i !== index) }, true)
    open = null
  }

  const whole = (s: { fromH: number; toH: number }) => s.fromH === 0 && s.toH === 24
  const rests = (load: Load) => season !== 'both' && load.season !== 'both' && load.season !== season
</script>

<svelte:window bind:innerWidth={page} />

<div class="top" bind:clientWidth={span}>
  {#if shown && running && e?.voltage}
    <Figures
      items={[
        { ptr: day('/energyBankWh'), unit: 'Wh', label: 'a day, from the bank', testid: 'energy-bank' },
        { ptr: day('/ahPerDay'), unit: 'Ah', label: `a day, at ${sayVolts(e.voltage.nominalV)}`, testid: 'ah-per-day' },
        ...(running.peakAcW > 0 || e.inverter
          ? [
              {
                ptr: ran('/peakAcW'),
                unit: 'W',
                label: 'AC at once',
                note: whole(running.peak) ? 'at any time' : clock(running.peak.fromH),
                testid: 'peak-ac',
              },
              {
                ptr: ran('/surgeDemandW'),
                unit: 'W',
                label: 'worst instant',
                note: running.worst.starting ? `for ${say(running.worst.startSeconds, 's')}` : undefined,
                testid: 'surge',
              },
            ]
          : []),
        ...(running.peakDcW > 0 || running.peakAcW === 0
          ? [{ ptr: ran('/peakDcW'), unit: 'W', label: 'DC at once', testid: 'peak-dc' }]
          : []),
      ]}
    />
  {/if}
  <WaysIn
    {season}
    sizes={e?.energy?.sizes ?? 'both'}
    seasonal={seasons.length > 0}
    onseason={(s) => (picked = s)}
    {stretched}
    onstretch={(h) => (stretched = h)}
  />
</div>

{#if demand.by === 'figure'}
  <OneFigure />
{:else if demand.by === 'states'}
  <StatesDemand />
{:else}
  <!-- One tab stop: the arrows reach the bars, Enter takes one in hand. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <div
    class="rows"
    role="group"
    aria-label="Loads over the day. Arrow keys reach the bars."
    tabindex="0"
    bind:this={list}
    use:stops
  >
    <div class="row head caption">
      <span class="adding">
        <button
          type="button"
          class={['btn btn-xs', loads.length === 0 ? 'btn-primary' : 'btn-outline']}
          onclick={() => add()}>Add a load</button
        >
        <AddLoad onadd={add} />
        <button type="button" class="btn btn-outline btn-xs" onclick={() => (lists = true)}>CSV</button>
      </span>
      <div class="hours" bind:this={hours} bind:clientWidth={wide}>
        <svg width={wide} height="24" aria-hidden="true" class="block">
          {#each axis.ticks() as h (h)}
            <text x={axis.x(h)} y="19" text-anchor={h === 0 ? 'start' : h === 24 ? 'end' : 'middle'} class="hour"
              >{clock(h)}</text
            >
          {/each}
          {#each { length: 24 } as _, h (h)}
            <!-- The list of hours beside the figures does the same by keyboard. -->
            <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
            <rect
              x={axis.x(h)}
              y="0"
              width={axis.x(h + 1) - axis.x(h)}
              height="24"
              fill="transparent"
              class="cursor-zoom-in"
              onclick={() => (stretched = stretched === h ? null : h)}
            />
          {/each}
        </svg>
      </div>
      <span class="text-right">Wh</span>
      <span class="text-right">Ah</span>
      <span class="text-right">share</span>
    </div>
    {#each loads as load, i (load.id)}
      <div class={['row', open === load.id && 'is-open', rests(load) && 'rests']} data-load={load.id}>
        <button type="button" class="what" aria-expanded={open === load.id} onclick={() => look(load.id)}>
          <b>{load.name || 'New load'}</b>{#if load.assumed}<span class="assumed">assumed</span>{/if}
          <span class="caption">{summary(load)}</span>
        </button>
        <div class="day"><DayStrip {load} index={i} {axis} resting={rests(load)} height={narrow ? 44 : 23} /></div>
        <span class="text-right"
          ><Fig ptr={day(`/rows/${i}/bankWh`)} unit="Wh" label="{load.name}, a day at the bank" size={15} /></span
        >
        <span class="text-right"
          ><Fig ptr={day(`/rows/${i}/ah`)} unit="Ah" label="{load.name}, ampere-hours a day" size={13} /></span
        >
        <span class="text-right share">
          <span class="bar" style:width="{(shown?.rows?.[i]?.share ?? 0) * 100}%"></span>
          <Fig ptr={day(`/rows/${i}/share`)} unit="fraction" label="{load.name}, share of the day" size={13} />
        </span>
      </div>
      {#if open === load.id}
        <div class="open-fields"><LoadFields {load} index={i} onremove={() => remove(i)} /></div>
      {/if}
    {/each}
    {#if e?.inverter?.item && shown && loads.length > 0}
      <IdleRow {day} {shown} {axis} />
    {/if}
    {#if loads.length === 0}
      <p class="note my-2">
        Take one from the library, or name your own: how it is fed, what it draws (60 W, or 5 A) and when it runs
        (10:00-10:10) or for how long (4 h).
      </p>
    {/if}
  </div>
{/if}

{#if e?.loads && shown && shown.energyBankWh > 0}
  <div class={['profile', alone && 'alone']}>
    <DayProfile axis={below} {season} {narrow} onlook={(h) => (stretched = stretched === h ? null : h)} />
    <AsTable
      heads={['from – to', 'AC running', 'with the hardest start', 'on DC']}
      rows={e.loads.profile
        .map((p, i) => ({ ...p, i }))
        .filter((p) => p.season === season)
        .map((p) => ({
          label: `${clock(p.fromH)} – ${clock(p.toH)}`,
          cells: [
            { ptr: `/loads/profile/${p.i}/acW`, unit: 'W', label: 'AC running' },
            { ptr: `/loads/profile/${p.i}/surgeW`, unit: 'W', label: 'with the hardest start' },
            { ptr: `/loads/profile/${p.i}/dcW`, unit: 'W', label: 'on DC' },
          ],
        }))}
    />
  </div>
  {#if narrow && running && running.surgeDemandW > 0}
    <p class="note">
      {clock(running.worst.fromH)}: {running.worst.starting
        ? `${running.worst.starting} starting, with`
        : 'on together:'}
      {running.worst.loads.filter((n) => n !== running!.worst.starting).join(', ') || 'nothing else on'}.
    </p>
  {/if}
{/if}
<LoadLists bind:open={lists} />

<style>
  .assumed {
    flex: none;
    margin-left: 5px;
    padding: 0 4px;
    border: 1px dashed var(--ink-3);
    font-size: 11.5px;
    color: var(--ink-2);
  }
  .top {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    justify-content: space-between;
    gap: 4px 16px;
    margin-top: 4px;
  }
  .rows {
    margin-top: 6px;
    position: relative;
    flex-shrink: 1 !important;
    min-height: 170px;
    overflow-y: auto;
    overflow-x: clip;
  }
  .rows:focus-visible {
    outline-offset: -2px;
  }
  /* Rows of the idle draw share these columns. */
  .rows :global(.row) {
    display: grid;
    grid-template-columns: 262px minmax(0, 1fr) 58px 42px 54px;
    gap: 8px;
    align-items: center;
    min-height: 25px;
    border-top: 1px solid var(--grid);
  }
  /* Rows out of sight cost nothing while a bar is dragged. */
  .rows :global(.row:not(.head)) {
    content-visibility: auto;
    contain-intrinsic-block-size: auto 25px;
  }
  .rows .head {
    min-height: 28px;
    border-top: 0;
    position: sticky;
    top: 0;
    z-index: 8;
    background: var(--sheet);
  }
  .adding {
    display: flex;
    gap: 5px;
    align-items: center;
  }
  .hour {
    font-size: 11px;
    fill: var(--ink-3);
  }
  .is-open {
    border-top-color: var(--ink) !important;
  }
  .rests .what b,
  .rests .text-right :global(.fig) {
    color: var(--ink-3);
    font-weight: 500;
  }
  .rows :global(.what) {
    display: flex;
    align-items: baseline;
    gap: 7px;
    text-align: left;
    min-width: 0;
    cursor: pointer;
    padding: 2px 0;
    min-height: 24px;
  }
  .rows :global(.what > *) {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .rows :global(.what b) {
    flex-shrink: 0;
    max-width: 60%;
  }
  .rows :global(.share) {
    position: relative;
  }
  .rows :global(.share .bar) {
    position: absolute;
    right: 0;
    bottom: -1px;
    height: 3px;
    background: var(--ink);
  }
  .profile {
    position: relative;
    display: flex;
    flex-direction: column;
    flex: 1 1 auto;
  }
  /* Beside the profile there is paper left, as long as the table is folded. */
  .profile:not(.alone) :global(details:not([open])) {
    position: absolute;
    left: 0;
    bottom: 0;
  }
  @media (max-width: 939px) {
    .rows {
      overflow: visible;
    }
    .rows :global(.row) {
      grid-template-columns: minmax(0, 1fr) 62px 46px 60px;
      padding: 4px 0;
      gap: 0 8px;
    }
    .rows :global(.row .day),
    .hours {
      grid-column: 1 / -1;
      grid-row: 2;
    }
    .rows .head {
      z-index: 9;
    }
    .adding {
      grid-column: 1 / -1;
    }
    .adding > .btn {
      min-height: 44px;
    }
    .head > .text-right {
      display: none;
    }
    .rows :global(.what) {
      min-height: 44px;
      flex-direction: column;
      gap: 0;
      justify-content: center;
      align-items: stretch;
    }
    .rows :global(.what b) {
      max-width: 100%;
    }
  }
</style>
