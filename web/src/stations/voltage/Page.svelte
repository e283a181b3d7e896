<script lang="ts">
  import { api } from '../../api/client'
  import type { LadderRung } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { diameterMm, step125 } from '../../drawing/geometry'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Figures from '../../ui/Figures.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import { answer, fieldText, num, parse, say, sayVolts } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import Ladder from './Ladder.svelte'
  import { putLimit } from './limit'
  import RungColumn from './RungColumn.svelte'

  let rungs = $state.raw<LadderRung[] | null>(null)
  // The ladder follows the design; while one is on its way the newest state waits.
  let busy = false
  let again = false
  async function climb() {
    if (busy) {
      again = true
      return
    }
    busy = true
    do {
      again = false
      try {
        rungs = await api.ladder(session.worked!, session.bankIndex)
      } catch {
        // The figures that stand stay; the sheet says already when the server is away.
      }
    } while (again)
    busy = false
  }
  $effect(() => {
    if (session.evaluation) void climb()
  })

  const CLASSES = [12, 16, 24, 32, 36, 48]
  /** Any class at any time, with what belonged to the old one set free. */
  async function choose(volts: string | null) {
    if (volts === null) {
      session.edit({ path: '~/systemV', value: null }, true)
      return
    }
    const asked = Number(volts)
    const ladder = await api.ladder(session.worked!, session.bankIndex, [asked])
    const rung = ladder.find((r) => r.systemV === asked)!
    session.edit(rung.here ? { path: '~/systemV', value: asked } : rung.changes, true)
  }

  const v = $derived(session.result?.voltage)
  const c = $derived(session.result?.currents)
  const dropLimit = $derived(session.result?.mainRun?.dropLimit ?? 0.03)
  const asked = $derived(session.result?.loads?.peakAcW ?? 0)
  const pxPerMm = $derived(
    step125(
      34 /
        Math.max(
          1,
          ...(rungs ?? []).map((r) => (r.cable.areaMm2 ? diameterMm(r.cable.areaMm2) * (r.cable.conductors ?? 1) : 1)),
        ),
    ),
  )
  let controller = $state(1)
  const most = $derived({
    fuse: Math.max(1, ...(rungs ?? []).map((r) => r.cable.fuseA ?? 0)),
    drop: Math.max(dropLimit * 1.1, ...(rungs ?? []).map((r) => r.cable.dropFraction ?? 0)),
    allows: Math.max(1, asked * 1.1, ...(rungs ?? []).map((r) => r.bank.allowsAcW ?? 0)),
    controller: Math.max(1, ...(rungs ?? []).map((r) => r.needs?.controllers[controller].nominalW ?? 0)),
  })
  /** The columns beside the ladder as long as they have room for what they say. */
  let room = $state(0)
  const stacked = $derived(room > 0 && room * 0.59 - 12 < 104 + 142 * (rungs?.length ?? 3))
  const money = $derived(session.design!.display.currency)

  function readLimit(typed: string) {
    const fits = (a: number) => a > 0 && a <= 2000
    const parsed = parse(typed, 'current', 'metric', fits)
    if ('value' in parsed && !fits(parsed.value)) return { reason: 'above 0 and up to 2,000 A' }
    return answer(parsed, (a) => fieldText(a, 'current', 'metric'), putLimit)
  }
</script>

{#snippet system()}
  <ChoiceField
    label="system voltage"
    value={session.bank!.systemV === null ? null : String(session.bank!.systemV)}
    options={CLASSES.map((volts) => ({ value: String(volts), text: `${volts} V` }))}
    advised={v && (c || v.follows)
      ? `${v.systemV === v.advisedV || !v.follows ? v.advisedV : v.systemV} V${v.follows ? ` by ${v.follows}` : ''}`
      : ''}
    width="158px"
    path="/systemV"
    onpick={(volts) => void choose(volts)}
  />
{/snippet}

{#if v && c}
  <div class="mt-1.5 flex flex-wrap items-end justify-between gap-x-4 gap-y-1">
    <Figures
      items={[
        { ptr: '/voltage/nominalV', unit: 'V', label: `real volts of ${v.systemV} V`, testid: 'nominal-v' },
        { ptr: '/currents/bankNominalA', unit: 'A', label: 'from the bank, nominal', testid: 'nominal-a' },
        { ptr: '/currents/bankWorstA', unit: 'A', label: `at full load, ${sayVolts(v.lowV)}`, testid: 'worst-a' },
        { ptr: '/needs/totalPrice', unit: 'money', label: 'cost of these', testid: 'voltage-price' },
      ]}
    />
    <span class="inline-flex flex-wrap items-end gap-2.5"
      >{@render system()}<TypedField
        label="most in the main cable"
        text={fieldText(v.advice.limitA, 'current', 'metric')}
        read={readLimit}
        nudge={(steps) => fieldText(Math.max(5, v.advice.limitA + steps * 5), 'current', 'metric')}
        path="/houseRules/own/voltage-current-limit"
        width="76px"
        snapshot={() => [{ path: '/houseRules/own', value: session.design!.houseRules.own }]}
      /></span
    >
  </div>
  {#if rungs}
    <div class={['ladder', stacked && 'stacked']} bind:clientWidth={room}>
      <div>
        <Ladder {rungs} height={stacked ? 260 : 342} />
        <AsTable
          heads={['at', 'amps', 'watts from the bank', 'allows']}
          rows={[]}
          plain={rungs
            .filter((r) => r.bus.amps !== null)
            .map((r) => [
              `${r.systemV} V`,
              say(r.bus.amps!, 'A'),
              `${num(r.bus.powerW!)} W`,
              r.bank.allowsAcW === null
                ? r.inverter.name === null && asked === 0
                  ? 'no AC'
                  : 'no limit'
                : `${num(r.bank.allowsAcW)} W`,
            ])}
        />
      </div>
      <div class="compare" style:--rungs={rungs.length} role="group" aria-label="What each voltage needs">
        <div class="labels caption">
          <span></span><span>discs {num(pxPerMm)} px a mm, core in use</span>
          <span>main cable</span><span>fuse</span><span>drop</span><span>bank allows</span>
          <label
            ><span class="sr-only">charge controller compared</span><select
              class="select select-xs"
              bind:value={controller}
              >{#each [20, 40, 60] as amps, n (amps)}<option value={n}>{amps} A solar</option>{/each}</select
            ></label
          >
          <span>by converter, it keeps a day</span><span>on the bus as it is</span><span>inverter</span><span
            >highest volts</span
          ><span>all of it{money ? `, ${money}` : ''}, prices of {session.design!.prices.date ?? 'the catalogue'}</span
          ><span></span>
        </div>
        {#each rungs as rung (rung.systemV)}<RungColumn
            {rung}
            {pxPerMm}
            {controller}
            {most}
            {dropLimit}
            {asked}
          />{/each}
      </div>
    </div>
  {/if}
{:else}
  <div class="mt-1.5">{@render system()}</div>
  <p class="note mt-2">
    The ladder appears with the first load: every voltage carries the same watts on another current.
  </p>
{/if}

<style>
  .ladder {
    display: grid;
    grid-template-columns: minmax(320px, 41%) minmax(0, 1fr);
    gap: 12px;
    margin-top: 4px;
  }
  .stacked {
    grid-template-columns: minmax(0, 1fr);
  }
  .compare {
    display: grid;
    grid-template-columns: 104px repeat(var(--rungs), minmax(140px, 1fr));
    overflow-x: auto;
    overflow-y: hidden;
    grid-template-rows: 32px 28px repeat(5, 25px) 32px 18px minmax(32px, auto) 25px 30px 28px;
    align-content: start;
  }
  .labels {
    display: grid;
    grid-template-rows: subgrid;
    grid-row: 1 / -1;
    align-items: center;
    line-height: 1.15;
    padding: 4px 0;
    position: sticky;
    left: 0;
    z-index: 1;
    background: var(--sheet);
  }
  .labels .select {
    width: 100px;
    height: 24px;
    font-size: 11.5px;
  }
  @media (max-width: 939px) {
    .ladder {
      grid-template-columns: minmax(0, 1fr);
    }
    .compare {
      grid-template-columns: 84px repeat(var(--rungs), minmax(100px, 1fr));
      grid-template-rows:
        56px 42px repeat(5, 46px) minmax(46px, auto) minmax(30px, auto) minmax(52px, auto)
        46px 46px 48px;
    }
    .labels .select {
      width: 80px !important;
      min-width: 0;
    }
  }
</style>
