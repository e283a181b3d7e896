<script lang="ts">
  import { untrack } from 'svelte'
  import { session } from '../../app/session.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import { DayAxis } from '../../ui/dayAxis'
  import Figures from '../../ui/Figures.svelte'
  import { clock, num, say, sayVolts } from '../../ui/quantity'
  import AddSource from './AddSource.svelte'
  import Answers from './Answers.svelte'
  import { bench } from './bench.svelte'
  import DayRows from './DayRows.svelte'
  import Filling from './Filling.svelte'
  import MonthStrip from './MonthStrip.svelte'
  import { WHOLE } from './months'
  import PlaceDialog from './PlaceDialog.svelte'
  import SourceDialog from './SourceDialog.svelte'
  import VoltScale from './VoltScale.svelte'
  import Dialog from '../../ui/Dialog.svelte'

  const charging = $derived(session.result?.charging ?? null)
  // Another design, or another bank: the month that misses most comes first.
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => bench.reset())
  })
  // The day follows what stands.
  $effect(() => {
    void session.evaluation
    untrack(() => void bench.ask())
  })

  let page = $state(1280)
  let wide = $state(600)
  const narrow = $derived(page < 940)
  const left = $derived(narrow ? 44 : 96)
  const axis = $derived(new DayAxis(left, Math.max(100, wide - left - 4)))
  const day = $derived(bench.day)
  const month = $derived(bench.month)
  const sources = $derived(charging?.sources ?? [])
  const hour = $derived.by(() => {
    if (!day) return []
    const mean = (series: number[], h: number) => series.slice(h * 4, h * 4 + 4).reduce((sum, w) => sum + w, 0) / 4
    return Array.from({ length: 24 }, (_, h) => [
      `${clock(h)} – ${clock(h + 1)}`,
      ...day.all.sources.map((s) => `${num(mean(s.takenW, h))} W`),
      `${num(day.all.sources.reduce((sum, s) => sum + mean(s.offeredW, h) - mean(s.takenW, h), 0))} W`,
      `${num(mean(day.all.outW, h))} W`,
      `${num(day.all.soc[h * 4] * 100, 1)} %`,
    ])
  })
  const thresholds = $derived.by(() => {
    const scale = charging?.scale
    if (!scale) return []
    const between = (least: number | null, most: number | null) =>
      [least === null ? '' : `over ${sayVolts(least)}`, most === null ? '' : `up to ${sayVolts(most)}`]
        .filter(Boolean)
        .join(', ') || '–'
    return [
      ...scale.lines.map((l) => ['the bank', l.label, sayVolts(l.v), '–', '']),
      ...scale.columns.flatMap((c) => [
        ...(c.fromV !== null && c.toV !== null
          ? [
              [
                c.name,
                'accepts',
                `${sayVolts(c.fromV)} to ${sayVolts(c.toV)}`,
                between(scale.greatestV, null),
                c.state === 'wrong' ? 'crosses' : '',
              ],
            ]
          : []),
        ...c.marks.map((m) => [
          c.name,
          m.label,
          m.state === 'not-set' ? 'not set yet' : sayVolts(m.v),
          between(m.leastV, m.mostV),
          m.why ?? '',
        ]),
      ]),
      ...scale.arrays.flatMap((a) => [
        [
          a.name,
          'open, cold morning',
          sayVolts(a.coldV),
          between(null, a.mostV),
          a.coldOk ? '' : 'over what the controller bears',
        ],
        [a.name, 'at work, hot', sayVolts(a.hotV), between(a.leastV, null), a.hotOk ? '' : 'never reaches the bank'],
      ]),
    ]
  })
</script>

<svelte:window bind:innerWidth={page} />

{#if charging}
  <div class="tools">
    {#each session.bank!.sources as s, i (s.id)}
      <button
        type="button"
        class="btn btn-outline btn-xs"
        data-source={s.id}
        onclick={() => (bench.dialog = { what: 'source', index: i })}>{s.name || 'unnamed'}</button
      >
    {/each}
    <button
      type="button"
      class={['btn btn-xs', sources.length === 0 ? 'btn-primary' : 'btn-outline']}
      onclick={() => (bench.dialog = { what: 'add' })}>Add a source</button
    >
    <button type="button" class="btn btn-outline btn-xs" onclick={() => (bench.dialog = { what: 'place' })}
      >Where it stands</button
    >
    {#if charging.monthsWait}<span class="note" data-testid="months-wait">{charging.monthsWait}</span>{/if}
  </div>
  {#if sources.length === 0}
    <p class="note empty">Add the first source: <AddSource links /></p>
  {/if}
  <div class="both">
    <div class="filling" bind:clientWidth={wide}>
      {#if month !== null}
        <MonthStrip {left} right={4} {narrow} />
        {#if day && day.month === month + 1}
          <Filling {axis} {day} {narrow} />
        {/if}
        <DayRows {axis} {day} {narrow} />
      {/if}
    </div>
    <div class="scale">
      <VoltScale {narrow} wide={!narrow} />
    </div>
  </div>
  {#if month !== null}
    {#if day}<Answers {day} />{/if}
    <div class="mt-1">
      <Figures
        lead={19}
        rest={17}
        items={[
          {
            ptr: `/charging/months/${month}/withoutPlugWh`,
            unit: 'Wh',
            label: 'balance without plug',
            testid: 'without-plug',
          },
          { ptr: `/charging/months/${month}/balanceWh`, unit: 'Wh', label: 'with all', testid: 'balance' },
          { ptr: '/charging/plug/hoursADay', unit: 'h', label: 'of the plug, worst month', testid: 'plug-hours' },
          { ptr: '/charging/plug/hoursAMonth', unit: 'h', label: 'in that month' },
          { ptr: `/charging/months/${month}/hoursToFull`, unit: 'h', label: 'floor to full', testid: 'to-full' },
          { ptr: `/charging/months/${month}/hoursToFloor`, unit: 'h', label: 'full to floor', testid: 'to-floor' },
          ...sources.map((s, i) => ({
            ptr: `/charging/months/${month}/coveredBy/${i}`,
            unit: 'fraction',
            label: `covered by ${s.name}`,
          })),
          ...sources.map((s, i) => ({
            ptr: `/charging/months/${month}/clipped/${i}`,
            unit: 'Wh',
            label: `clipped, ${s.name}`,
          })),
        ].filter((item) => (session.figure(item.ptr) ?? 0) !== 0)}
      />
    </div>
  {/if}
  <div class="tables">
    {#if month !== null}
      <AsTable heads={['hour', ...sources.map((s) => s.name), 'refused', 'out', 'charge']} rows={[]} plain={hour} />
    {/if}
    <AsTable heads={['whose', 'threshold', 'volts', 'must lie', '']} rows={[]} plain={thresholds} />
  </div>
  <p class="caution">
    Disconnect arrays and chargers before the battery, and prove the array dead: in light it cannot be switched off.
    Climates, clearness and settings are typical values; makers’ sheets, local code and who is licensed there come
    first.
  </p>
{:else}
  <p class="note mt-3">{session.result?.because.bank ?? 'What charges the bank follows from it'}.</p>
{/if}

<SourceDialog />
<PlaceDialog />
<Dialog open={bench.dialog?.what === 'add'} title="Add a source" onclose={() => (bench.dialog = null)}>
  <div class="kinds"><AddSource /></div>
</Dialog>

<style>
  .tools {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    align-items: center;
    margin-top: 3px;
  }
  .empty {
    margin-top: 6px;
  }
  .both {
    display: grid;
    grid-template-columns: minmax(0, 1.62fr) minmax(300px, 1fr);
    gap: 0 14px;
    flex: 1 1 auto;
    min-height: 372px;
    margin-top: 4px;
  }
  .filling > :global(*:not(.fill)) {
    flex-shrink: 0;
  }
  .tables {
    display: flex;
    flex-wrap: wrap;
    gap: 0 24px;
  }
  .filling,
  .scale {
    display: flex;
    flex-direction: column;
    min-width: 0;
    min-height: 0;
  }
  .scale {
    border-left: 1px solid var(--hair);
    padding-left: 12px;
  }
  .kinds {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
    gap: 8px;
    margin-top: 10px;
  }
  @media (max-width: 939px) {
    .both {
      grid-template-columns: minmax(0, 1fr);
    }
    .scale {
      border-left: 0;
      padding-left: 0;
      border-top: 1px solid var(--hair);
      margin-top: 10px;
      padding-top: 8px;
    }
    .tools .btn {
      min-height: 44px;
      padding-inline: 12px;
    }
  }
</style>
