<script lang="ts">
  import type { UnitItem } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { practices } from '../../app/tables'
  import { banksTable } from '../../banks/table.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Fig from '../../ui/Fig.svelte'
  import Figures from '../../ui/Figures.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { num, stringName } from '../../ui/quantity'
  import Views from '../../ui/Views.svelte'
  import BankDrawing from './BankDrawing.svelte'
  import { bench } from './bench.svelte'
  import LoadSlider from './LoadSlider.svelte'
  import RunDownView from './RunDownView.svelte'
  import StandView from './StandView.svelte'
  import UnitMenu from './UnitMenu.svelte'
  import UnitStock from './UnitStock.svelte'

  const e = $derived(session.result)
  const b = $derived(e?.bank)
  const n = $derived(e?.network)
  const unit = $derived(session.bank!.unit)
  const cells = $derived(e?.voltage?.cells ?? 4)
  const options = $derived.by(() => {
    const all = session.reference!.units
    // Each by its own chemistry: what makes 12 V of one makes something else of another.
    const chemistries = session.reference!.chemistries
    const makes = (u: (typeof all)[number]) => {
      const needed = chemistries.find((c) => c.id === u.chemistry)?.cells[String(e?.voltage?.systemV ?? 12)]
      return needed !== undefined && needed % u.cells === 0
    }
    const listed = [...all.filter(makes), ...all.filter((u) => !makes(u))].map((u) => ({
      value: u.key,
      text: makes(u) ? u.name : `${u.name} (not ${e?.voltage?.systemV ?? ''} V)`,
    }))
    return unit && !all.some((u) => u.key === unit.key) ? [{ value: unit.key, text: unit.name }, ...listed] : listed
  })
  const sizes = $derived(practices().find((p) => p.id === e?.mainRun?.laid.practice)?.sizes ?? [])

  /** Lithium without a BMS of its own needs one for each string. */
  const bare = $derived(
    b !== null && b !== undefined && b.unit.bms === null && ['lfp', 'nmc'].includes(b.unit.chemistry),
  )
  const bmsOptions = $derived.by(() => {
    const own = session.bank!.bms
    const made = session.reference!.bms.map((x) => ({
      value: x.key,
      text: x.peakA === null ? x.name : `${x.name}, ${num(x.peakA)} A for ${num(x.peakSeconds ?? 0)} s`,
    }))
    return own && !made.some((x) => x.value === own.key) ? [{ value: own.key, text: own.name }, ...made] : made
  })

  let stock = $state(false)

  const LOOKS = [
    ['currents', 'as it stands'],
    ['rundown', 'run it down'],
    ['stands', 'where it stands'],
  ] as const

  /** Each way of looking has a figure that it is about. */
  function look(view: typeof bench.view) {
    bench.view = view
    if (view === 'currents') session.arrive('bank')
    const about = '/stands/compartments/0/room/heightLeftMm'
    if (view === 'stands' && session.figure(about) !== null) session.select(about)
    if (view === 'rundown') session.release()
  }

  /** Another chemistry in place of the old one: what must follow is listed at Charging. */
  function changed(to: UnitItem | null) {
    const before = session.bank!.changed?.from ?? unit?.chemistry
    if (!unit || !to || to.chemistry === unit.chemistry) return []
    return [{ path: '~/changed', value: before && before !== to.chemistry ? { from: before, done: [] } : null }]
  }

  function take(item: UnitItem) {
    session.edit(
      [
        ...changed(item),
        { path: '~/unit', value: item },
        { path: '~/chemistry', value: null },
        { path: '~/series', value: null },
      ],
      true,
    )
  }

  function pick(key: string | null) {
    const item = key === null ? null : (session.reference!.units.find((u) => u.key === key) ?? unit)
    // The bank takes the chemistry of its units.
    session.edit([...changed(item), { path: '~/unit', value: item }, { path: '~/chemistry', value: null }], true)
  }

  const limiter = $derived(b?.unit.bms || session.bank!.bms ? 'BMS' : 'units')
  const words = $derived({ energy: 'energy', 'c-rate': 'the C-rate', bms: `the ${limiter}` })
  const link = $derived(n?.wiring.style === 'bus-bars' ? 'lead' : 'link')
</script>

<Views name="How the bank is looked at" views={b && n ? LOOKS : []} value={bench.view} onpick={look}>
  <button type="button" class="link-copper" data-testid="banks-open" onclick={() => banksTable.show()}
    >{session.design!.banks.length > 1 ? 'banks and joins' : 'another bank'}</button
  >
</Views>
{#if bench.view === 'rundown' && b && n}
  <RunDownView />
{:else if bench.view === 'stands' && b && n}
  <StandView />
{:else}
  <div class="controls">
    <ChoiceField
      label="unit"
      value={unit?.key ?? null}
      {options}
      advised={b?.choice.advisedName ?? ''}
      width="222px"
      path="/unit"
      onpick={pick}
    />
    <button type="button" class="btn btn-outline btn-xs stock" onclick={() => (stock = true)}>Stock</button>
    {#if bare}
      <ChoiceField
        label="BMS of each string"
        value={session.bank!.bms?.key ?? null}
        options={bmsOptions}
        none="none"
        width="150px"
        path="/bms"
        onpick={(key) =>
          session.edit({ path: '~/bms', value: session.reference!.bms.find((x) => x.key === key) ?? null }, true)}
      />
    {/if}
    <QuantityField
      label="in series"
      kind="count"
      path="/series"
      advised={b?.layout.advisedSeries ?? null}
      placeholder={b ? undefined : '–'}
      width="58px"
    />
    <QuantityField
      label="strings"
      kind="count"
      path="/parallel"
      advised={b?.layout.advisedParallel ?? b?.layout.parallel ?? null}
      placeholder={b ? undefined : '–'}
      width="58px"
    />
    {#if n && b && b.layout.series > 1}
      <QuantityField
        label="jumpers"
        kind="length"
        path="/wiring/jumper/lengthM"
        advised={n.copper.jumper.lengthM}
        width="68px"
      />
    {/if}
    {#if n && b && b.layout.parallel > 1}
      <QuantityField
        label="{link} length"
        kind="length"
        path="/wiring/{link}/lengthM"
        advised={n.copper[link].lengthM}
        width="68px"
      />
      <ChoiceField
        label="{link} size"
        value={session.bank!.wiring[link]?.size ?? null}
        options={sizes.map((s) => ({ value: s.size, text: s.size }))}
        advised={n.copper[link].size}
        width="148px"
        path="/wiring/{link}/size"
        onpick={(size) => session.edit({ path: `~/wiring/${link}/size`, value: size }, true)}
      />
    {/if}
  </div>

  {#if b && e?.voltage && cells % b.unit.cells !== 0}
    <p class="note mt-1" data-testid="cannot">
      {b.unit.name} cannot make {e.voltage.systemV} V.
      <button type="button" class="link-copper" onclick={() => (stock = true)}>See which can</button>
    </p>
  {/if}
  {#if b && e?.voltage}
    <div class="mt-1.5">
      <Figures
        items={[
          { ptr: '/bank/holds/usableWh', unit: 'Wh', label: 'usable', testid: 'usable-wh' },
          { ptr: '/bank/lasts/hoursAtMean', unit: 'h', label: 'lasts, as the day goes', testid: 'hours-mean' },
          { ptr: '/bank/lasts/hoursAtPeak', unit: 'h', label: 'with the most on', testid: 'hours-peak' },
          { ptr: '/bank/holds/nominalV', unit: 'V', label: 'real volts', testid: 'bank-v' },
          { ptr: '/bank/holds/ah', unit: 'Ah', label: 'at those volts', testid: 'bank-ah' },
          {
            ptr: '/network/ceiling/allowsAcW',
            unit: 'W',
            label: limiter === 'BMS' ? 'BMS allows, AC' : 'units allow, AC',
            testid: 'allows-ac',
          },
          ...(n?.ceiling.amps && n.ceiling.idealA && b.layout.parallel > 1
            ? [
                {
                  ptr: '/network/ceiling/amps',
                  unit: 'A',
                  label: 'ceiling',
                  note: `of ${num(n.ceiling.idealA)} A shared evenly`,
                  testid: 'ceiling-a',
                },
              ]
            : []),
          { ptr: '/bank/massKg', unit: 'kg', label: 'mass' },
          ...(b.lasts.peukertK === null
            ? []
            : [{ ptr: '/bank/lasts/peukertK', unit: '', label: 'Peukert’s exponent', testid: 'peukert' }]),
        ]}
      />
    </div>
    {#if bench.unit && n}<UnitMenu />{:else if b.need.sizing}
      {@const s = b.need.sizing}
      {@const tied = [s.parallelByCRate, s.parallelByBms].every((p) => p === null || p === s.parallelByEnergy)}
      <p class="note mt-0.5" data-testid="sizing">
        Energy asks for <Fig ptr="/bank/need/sizing/parallelByEnergy" unit="" label="strings by energy" size={14} />
        {s.parallelByEnergy === 1 ? 'string' : 'strings'}{#if s.parallelByCRate !== null}, the C-rate for <Fig
            ptr="/bank/need/sizing/parallelByCRate"
            unit=""
            label="strings by C-rate"
            size={14}
          />{/if}{#if s.parallelByBms !== null}, the {limiter} for <Fig
            ptr="/bank/need/sizing/parallelByBms"
            unit=""
            label="strings by BMS"
            size={14}
          />{/if}: {#if tied}<b>all alike</b>{:else}<b>{words[s.governs]} governs</b>{/if}, {s.units}
        {s.units === 1 ? 'unit' : 'units'} needed, {b.layout.units} here.
        {#if s.ahRate !== null && b.need.ah !== null}
          By energy <Fig ptr="/bank/need/sizing/ahEnergy" unit="Ah" label="ampere-hours by energy" size={14} />, by the
          C-rate
          <Fig ptr="/bank/need/sizing/ahRate" unit="Ah" label="ampere-hours by C-rate" size={14} />.
        {/if}
      </p>
    {/if}
    {#if n}
      <BankDrawing />
      <div class="flex flex-wrap items-end gap-x-5">
        <LoadSlider />
        <AsTable
          heads={['string', 'share', 'at full load']}
          rows={n.strings.shares.map((_, i) => ({
            label: stringName(i + 1),
            cells: [
              { ptr: `/network/strings/shares/${i}`, unit: 'fraction', label: `string ${stringName(i + 1)}’s share` },
              { ptr: `/network/strings/amps/${i}`, unit: 'A', label: `string ${stringName(i + 1)} at full load` },
            ],
          }))}
        />
      </div>
    {/if}
    <p class="caution">
      A battery cannot be switched off: rings off, insulated tools, cover each positive. {#if b.layout.parallel > 1}Join
        strings only at equal rest voltage, within 0.05 V for each 12 V.{/if}
    </p>
  {:else}
    <p class="note mt-3">{e?.because.bank ?? 'Choose a unit'}. With loads entered, one is advised.</p>
  {/if}
{/if}

<UnitStock bind:open={stock} onpick={take} />

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 10px;
    margin-top: 6px;
    align-items: flex-end;
  }
  .stock {
    height: 26px;
  }
  @media (max-width: 939px) {
    .stock {
      height: 44px;
    }
  }
</style>
