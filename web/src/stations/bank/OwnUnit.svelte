<script lang="ts">
  import { Refused } from '../../api/client'
  import type { UnitItem } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { parse } from '../../ui/quantity'
  import type { Kind } from '../../ui/quantity'

  /** A unit from its data sheet, with every property that matters; what is not known may be left out. */
  interface Props {
    /** A unit to begin with. */
    start: UnitItem | null
    onkeep: (unit: UnitItem) => Promise<void>
    onleave: () => void
  }
  let { start, onkeep, onleave }: Props = $props()
  let told = $state('')

  type Key = string
  const fields: { key: Key; label: string; kind: Kind | 'text'; from: (u: UnitItem) => unknown }[] = [
    { key: 'name', label: 'name', kind: 'text', from: (u) => u.name },
    { key: 'cells', label: 'cells in series', kind: 'count', from: (u) => u.cells },
    { key: 'ah', label: 'ampere-hours', kind: 'charge', from: (u) => u.ah },
    { key: 'ratedHours', label: 'rated at, hours', kind: 'hours', from: (u) => u.ratedHours },
    { key: 'reserveMinutes', label: 'second rating, minutes', kind: 'number', from: (u) => u.reserve?.minutes },
    { key: 'reserveAmps', label: 'at amperes', kind: 'current', from: (u) => u.reserve?.amps },
    { key: 'bmsContinuous', label: 'BMS, continuous', kind: 'current', from: (u) => u.bms?.continuousA },
    { key: 'bmsPeak', label: 'BMS, peak', kind: 'current', from: (u) => u.bms?.peakA },
    { key: 'bmsSeconds', label: 'peak lasts', kind: 'seconds', from: (u) => u.bms?.peakSeconds },
    { key: 'bmsCharge', label: 'BMS, charging', kind: 'current', from: (u) => u.bms?.chargeA },
    { key: 'continuousA', label: 'without BMS, continuous', kind: 'current', from: (u) => u.continuousA },
    {
      key: 'milliohm',
      label: 'internal resistance, mΩ',
      kind: 'number',
      from: (u) => (u.resistanceOhm === null ? null : Number((u.resistanceOhm * 1000).toFixed(6))),
    },
    { key: 'massKg', label: 'mass, kg', kind: 'number', from: (u) => u.massKg },
    { key: 'lengthMm', label: 'length, mm', kind: 'number', from: (u) => u.size?.lengthMm },
    { key: 'widthMm', label: 'width, mm', kind: 'number', from: (u) => u.size?.widthMm },
    { key: 'heightMm', label: 'height, mm', kind: 'number', from: (u) => u.size?.heightMm },
    { key: 'stud', label: 'stud', kind: 'text', from: (u) => u.stud },
    { key: 'price', label: 'price', kind: 'number', from: (u) => u.price },
    { key: 'priceDate', label: 'price of', kind: 'text', from: (u) => u.priceDate },
    { key: 'productLine', label: 'product line', kind: 'text', from: (u) => u.productLine },
    { key: 'cycleLife', label: 'cycle life', kind: 'number', from: (u) => u.cycleLife },
    { key: 'cycleDepth', label: 'at a depth of', kind: 'share', from: (u) => u.cycleDepth },
    { key: 'calendarYears', label: 'calendar years', kind: 'number', from: (u) => u.calendarYears },
    { key: 'maxSeries', label: 'most in series', kind: 'count', from: (u) => u.maxSeries },
    { key: 'maxParallel', label: 'most in parallel', kind: 'count', from: (u) => u.maxParallel },
    { key: 'breakerA', label: 'breaker in it', kind: 'current', from: (u) => u.breakerA },
    { key: 'breakerInterruptA', label: 'which breaks', kind: 'current', from: (u) => u.breakerInterruptA },
  ]
  const initial = () => Object.fromEntries(fields.map((f) => [f.key, start ? String(f.from(start) ?? '') : '']))
  let f = $state<Record<Key, string>>({ ...initial() })
  let chemistry = $state(initialOf((u) => u.chemistry, 'lfp'))
  let side = $state(initialOf((u) => u.terminalSide ?? 'top', 'top'))
  let talks = $state(initialOf((u) => u.communicates, false))
  function initialOf<T>(of: (u: UnitItem) => T, other: T): T {
    return start ? of(start) : other
  }

  function number(key: Key, needed = false): number | null {
    const text = (f[key] ?? '').trim()
    const field = fields.find((x) => x.key === key)!
    if (text === '') {
      if (needed) throw new Error(`${field.label} is missing`)
      return null
    }
    const parsed = parse(text, field.kind as Kind)
    if ('reason' in parsed) throw new Error(`${field.label}: ${parsed.reason}`)
    return parsed.value
  }
  const words = (key: Key) => (f[key] ?? '').trim() || null

  async function keep() {
    try {
      if (!words('name')) throw new Error('name is missing')
      const [width, height] = [number('widthMm'), number('heightMm')]
      const [minutes, bms, milliohm, length] = [
        number('reserveMinutes'),
        number('bmsContinuous'),
        number('milliohm'),
        number('lengthMm'),
      ]
      const unit: UnitItem = {
        key: '',
        name: words('name')!,
        chemistry: chemistry as UnitItem['chemistry'],
        cells: number('cells', true)!,
        ah: number('ah', true)!,
        ratedHours: number('ratedHours'),
        reserve: minutes === null ? null : { minutes, amps: number('reserveAmps', true)! },
        bms:
          bms === null
            ? null
            : {
                continuousA: bms,
                peakA: number('bmsPeak'),
                peakSeconds: number('bmsSeconds'),
                chargeA: number('bmsCharge'),
              },
        continuousA: number('continuousA'),
        resistanceOhm: milliohm === null ? null : Number((milliohm / 1000).toFixed(9)),
        massKg: number('massKg'),
        // Of two sides nobody knows how it stands.
        size:
          length === null || width === null || height === null
            ? null
            : { lengthMm: length, widthMm: width, heightMm: height },
        terminalSide: side,
        stud: words('stud'),
        price: number('price'),
        priceDate: words('priceDate'),
        productLine: words('productLine'),
        cycleLife: number('cycleLife'),
        cycleDepth: number('cycleDepth'),
        calendarYears: number('calendarYears'),
        maxSeries: number('maxSeries'),
        maxParallel: number('maxParallel'),
        communicates: talks,
        breakerA: number('breakerA'),
        breakerInterruptA: number('breakerInterruptA'),
      }
      await onkeep(unit)
    } catch (e) {
      told =
        e instanceof Refused && e.faults[0]
          ? `${e.faults[0].pointer.slice(1)} ${e.faults[0].reason}`
          : (e as Error).message
    }
  }
</script>

<div class="grid grid-cols-2 sm:grid-cols-4 gap-x-3 gap-y-1.5 mt-2">
  {#each fields as field (field.key)}
    <label class="flex flex-col gap-px"
      ><span class="caption">{field.label}</span><input
        class="input input-xs w-full"
        autocomplete="off"
        data-own={field.key}
        bind:value={f[field.key]}
      /></label
    >
  {/each}
  <label class="flex flex-col gap-px"
    ><span class="caption">chemistry</span><select class="select select-xs w-full" bind:value={chemistry}
      >{#each session.reference!.chemistries as c (c.id)}<option value={c.id}>{c.label}</option>{/each}</select
    ></label
  >
  <label class="flex flex-col gap-px"
    ><span class="caption">terminals on</span><select class="select select-xs w-full" bind:value={side}
      ><option value="top">top</option><option value="long">the long side</option><option value="short"
        >the short side</option
      ></select
    ></label
  >
  <label class="flex items-end gap-2 pb-1"
    ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={talks} /><span class="text-[12.5px]"
      >talks to its neighbours</span
    ></label
  >
</div>
<p class="caption mt-2">
  A resistance that is not known is estimated from chemistry and ampere-hours, and marked so; a price, a mass or a size
  that is not known stays unknown.
</p>
<p class="note mt-1" role="alert">{told}</p>
<div class="modal-action">
  <button type="button" class="btn btn-outline btn-sm" onclick={onleave}>Back to the stock</button>
  <button type="button" class="btn btn-primary btn-sm" onclick={keep}>Keep and use it</button>
</div>
