<script lang="ts">
  import { untrack } from 'svelte'
  import { api } from '../../api/client'
  import type { UnitItem } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import ItemForm from '../../ui/ItemForm.svelte'
  import type { ItemField, Values } from '../../ui/itemForm'
  import { fieldText, parse, sayVolts } from '../../ui/quantity'

  /** A unit from its data sheet: five things first, and what else is known. */
  interface Props {
    /** A unit to begin with. */
    start: UnitItem | null
    onkeep: (unit: UnitItem) => Promise<void>
    onleave: () => void
  }
  let { start, onkeep, onleave }: Props = $props()

  const unknown = 'not known'
  const ratings = 'Its ratings'
  const bms = 'More of its BMS'
  const body = 'Body and terminals'
  const money = 'Price and life'
  type From = (u: UnitItem) => unknown
  const known: (ItemField & { from: From })[] = [
    {
      key: 'name',
      label: 'name',
      kind: 'text',
      needed: true,
      example: 'shed block 12 V',
      pointer: '/name',
      from: (u) => u.name,
    },
    {
      key: 'volts',
      label: 'volts on its plate',
      kind: 'voltage',
      needed: true,
      example: '12 V, 12.8 V or 6 V',
      pointer: '/cells',
      fits: (v) => v > 0 && v <= 200,
      from: (u) => sayVolts(u.cells * nominalOf(u.chemistry)),
    },
    {
      key: 'ah',
      label: 'ampere-hours',
      kind: 'charge',
      needed: true,
      example: '105 Ah',
      pointer: '/ah',
      from: (u) => u.ah,
    },
    {
      key: 'bmsContinuous',
      label: 'BMS, amperes without end',
      kind: 'current',
      left: 'no BMS in it',
      pointer: '/bms/continuousA',
      from: (u) => u.bms?.continuousA,
    },
    {
      key: 'ratedHours',
      label: 'rated over, hours',
      kind: 'hours',
      group: ratings,
      left: '20 h lead-acid, 5 h lithium',
      pointer: '/ratedHours',
      from: (u) => u.ratedHours,
    },
    {
      key: 'reserveMinutes',
      label: 'second rating, minutes',
      kind: 'number',
      group: ratings,
      left: 'none',
      pointer: '/reserve/minutes',
      from: (u) => u.reserve?.minutes,
    },
    {
      key: 'reserveAmps',
      label: 'at amperes',
      kind: 'current',
      group: ratings,
      left: 'none',
      pointer: '/reserve/amps',
      from: (u) => u.reserve?.amps,
    },
    {
      key: 'continuousA',
      label: 'without BMS, amperes without end',
      kind: 'current',
      group: ratings,
      left: 'no limit said',
      pointer: '/continuousA',
      from: (u) => u.continuousA,
    },
    {
      key: 'milliohm',
      label: 'inner resistance, mΩ',
      kind: 'number',
      group: ratings,
      left: 'assumed by chemistry and Ah',
      pointer: '/resistanceOhm',
      from: (u) => (u.resistanceOhm === null ? null : Number((u.resistanceOhm * 1000).toFixed(6))),
    },
    {
      key: 'maxSeries',
      label: 'most in series',
      kind: 'count',
      group: ratings,
      left: 'no limit said',
      pointer: '/maxSeries',
      from: (u) => u.maxSeries,
    },
    {
      key: 'maxParallel',
      label: 'most in parallel',
      kind: 'count',
      group: ratings,
      left: 'no limit said',
      pointer: '/maxParallel',
      from: (u) => u.maxParallel,
    },
    {
      key: 'bmsPeak',
      label: 'peak amperes',
      kind: 'current',
      group: bms,
      left: 'none stated',
      pointer: '/bms/peakA',
      from: (u) => u.bms?.peakA,
    },
    {
      key: 'bmsSeconds',
      label: 'for seconds',
      kind: 'seconds',
      group: bms,
      left: unknown,
      pointer: '/bms/peakSeconds',
      from: (u) => u.bms?.peakSeconds,
    },
    {
      key: 'bmsCharge',
      label: 'charging amperes',
      kind: 'current',
      group: bms,
      left: 'as continuous',
      pointer: '/bms/chargeA',
      from: (u) => u.bms?.chargeA,
    },
    {
      key: 'breakerA',
      label: 'breaker in it, amperes',
      kind: 'current',
      group: bms,
      left: 'none',
      pointer: '/breakerA',
      from: (u) => u.breakerA,
    },
    {
      key: 'breakerInterruptA',
      label: 'which breaks, amperes',
      kind: 'current',
      group: bms,
      left: unknown,
      pointer: '/breakerInterruptA',
      from: (u) => u.breakerInterruptA,
    },
    {
      key: 'massKg',
      label: 'mass, kg',
      kind: 'number',
      group: body,
      left: unknown,
      pointer: '/massKg',
      from: (u) => u.massKg,
    },
    {
      key: 'lengthMm',
      label: 'length, mm',
      kind: 'number',
      group: body,
      left: unknown,
      pointer: '/size/lengthMm',
      from: (u) => u.size?.lengthMm,
    },
    {
      key: 'widthMm',
      label: 'width, mm',
      kind: 'number',
      group: body,
      left: unknown,
      pointer: '/size/widthMm',
      from: (u) => u.size?.widthMm,
    },
    {
      key: 'heightMm',
      label: 'height, mm',
      kind: 'number',
      group: body,
      left: unknown,
      pointer: '/size/heightMm',
      from: (u) => u.size?.heightMm,
    },
    { key: 'stud', label: 'stud', kind: 'text', group: body, left: unknown, pointer: '/stud', from: (u) => u.stud },
    {
      key: 'price',
      label: 'price',
      kind: 'number',
      group: money,
      left: unknown,
      pointer: '/price',
      from: (u) => u.price,
    },
    {
      key: 'priceDate',
      label: 'month of the price',
      kind: 'text',
      group: money,
      left: unknown,
      pointer: '/priceDate',
      from: (u) => u.priceDate,
    },
    {
      key: 'productLine',
      label: 'product line',
      kind: 'text',
      group: money,
      left: 'none',
      pointer: '/productLine',
      from: (u) => u.productLine,
    },
    {
      key: 'cycleLife',
      label: 'cycles it lasts',
      kind: 'number',
      group: money,
      left: 'typical of its chemistry',
      pointer: '/cycleLife',
      from: (u) => u.cycleLife,
    },
    {
      key: 'cycleDepth',
      label: 'at a depth of',
      kind: 'share',
      group: money,
      left: 'as the house rule',
      pointer: '/cycleDepth',
      from: (u) => u.cycleDepth,
    },
    {
      key: 'calendarYears',
      label: 'years it lasts',
      kind: 'number',
      group: money,
      left: 'typical of its chemistry',
      pointer: '/calendarYears',
      from: (u) => u.calendarYears,
    },
  ]
  const fields: ItemField[] = known
  function nominalOf(id: string) {
    return session.reference!.chemistries.find((c) => c.id === id)!.cellNominalV
  }
  /** As one would type it: a share with its sign. */
  function written(field: (typeof known)[number], unit: UnitItem): string {
    const value = field.from(unit)
    return typeof value === 'number' && field.kind === 'share'
      ? fieldText(value, 'share', 'metric')
      : String(value ?? '')
  }
  let texts = $state(untrack(() => Object.fromEntries(known.map((f) => [f.key, start ? written(f, start) : '']))))
  let chemistry = $state(untrack(() => start?.chemistry ?? 'lfp'))
  let side = $state(untrack(() => start?.terminalSide ?? 'top'))
  let talks = $state(untrack(() => start?.communicates ?? false))

  /** What the volts on the plate may mean, the likelier first. */
  let counts = $state.raw<{ cells: number; nominalV: number }[] | null>(null)
  let picked = $state(0)
  $effect(() => {
    const parsed = parse(texts.volts, 'voltage', 'metric', (v) => v > 0 && v <= 200)
    const of = chemistry
    counts = null
    picked = 0
    if ('reason' in parsed || !(parsed.value > 0)) return
    const asked = new AbortController()
    void api.cells(of, parsed.value, asked.signal).then(
      (answer) => (counts = answer),
      () => {},
    )
    return () => asked.abort()
  })
  const cellsWord = (n: number) => `${n} ${n === 1 ? 'cell' : 'cells'} in series`
  const understood = $derived<Record<string, string>>(
    counts?.[picked] ? { volts: `= ${cellsWord(counts[picked].cells)}, ${sayVolts(counts[picked].nominalV)}` } : {},
  )

  async function keep(v: Values) {
    const number = (key: string) => v[key] as number | null
    const text = (key: string) => v[key] as string | null
    const [milliohm, minutes, continuousA] = [number('milliohm'), number('reserveMinutes'), number('bmsContinuous')]
    const [length, width, height] = [number('lengthMm'), number('widthMm'), number('heightMm')]
    // The volts may have been typed in the very moment of keeping.
    const meant = counts ?? (await api.cells(chemistry, number('volts')!))
    await onkeep({
      key: '',
      name: text('name')!,
      chemistry: chemistry as UnitItem['chemistry'],
      cells: (meant[picked] ?? meant[0]).cells,
      ah: number('ah')!,
      ratedHours: number('ratedHours'),
      reserve: minutes === null ? null : { minutes, amps: number('reserveAmps') ?? 0 },
      bms:
        continuousA === null
          ? null
          : { continuousA, peakA: number('bmsPeak'), peakSeconds: number('bmsSeconds'), chargeA: number('bmsCharge') },
      continuousA: number('continuousA'),
      resistanceOhm: milliohm === null ? null : Number((milliohm / 1000).toFixed(9)),
      massKg: number('massKg'),
      // Of two sides nobody knows how it stands.
      size:
        length === null || width === null || height === null
          ? null
          : { lengthMm: length, widthMm: width, heightMm: height },
      terminalSide: side,
      stud: text('stud'),
      price: number('price'),
      priceDate: text('priceDate'),
      productLine: text('productLine'),
      cycleLife: number('cycleLife'),
      cycleDepth: number('cycleDepth'),
      calendarYears: number('calendarYears'),
      maxSeries: number('maxSeries'),
      maxParallel: number('maxParallel'),
      communicates: talks,
      breakerA: number('breakerA'),
      breakerInterruptA: number('breakerInterruptA'),
    })
  }

  function check(v: Values) {
    const wrong: Record<string, { reason: string }> = {}
    if (counts?.length === 0)
      wrong.volts = { reason: `no whole number of cells of this chemistry makes ${texts.volts.trim()}` }
    if (v.reserveMinutes !== null && v.reserveAmps === null)
      wrong.reserveAmps = { reason: 'is needed beside the minutes' }
    if (v.bmsContinuous === null && (v.bmsPeak !== null || v.bmsCharge !== null))
      wrong.bmsContinuous = { reason: 'is needed beside its other amperes' }
    return wrong
  }
</script>

<ItemForm {fields} bind:texts {understood} {check} onkeep={keep} {onleave} leave="Back to the stock">
  {#snippet first()}
    <div class="field">
      <label class="caption" for="own-chemistry">chemistry</label>
      <select id="own-chemistry" class="select select-xs w-full" data-own="chemistry" bind:value={chemistry}
        >{#each session.reference!.chemistries as c (c.id)}<option value={c.id}>{c.label}</option>{/each}</select
      >
      {#if counts && counts.length > 1}
        <button type="button" class="link-copper text-left text-[12px] min-h-6" onclick={() => (picked = 1 - picked)}
          >{cellsWord(counts[1 - picked].cells)}, {sayVolts(counts[1 - picked].nominalV)} instead</button
        >
      {/if}
    </div>
    <div class="field">
      <label class="caption" for="own-side">terminals on</label>
      <select id="own-side" class="select select-xs w-full" bind:value={side}
        ><option value="top">top</option><option value="long">the long side</option><option value="short"
          >the short side</option
        ></select
      >
    </div>
    <label class="flex items-center gap-2"
      ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={talks} /><span class="text-[12.5px]"
        >talks to its neighbours</span
      ></label
    >
  {/snippet}
</ItemForm>
