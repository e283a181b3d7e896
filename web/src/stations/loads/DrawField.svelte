<script lang="ts">
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { refusal } from '../../ui/limits'
  import { answer, fieldText, num, parse } from '../../ui/quantity'
  import { slip } from '../../ui/slips'
  import type { Reading } from '../../ui/slips'
  import TypedField from '../../ui/TypedField.svelte'
  import { lengthOf } from '../../ui/dayWindows'

  /** What one unit draws: watts or amperes, whichever the plate or the meter says. */
  let { load, path }: { load: Load; path: string } = $props()

  const inAmps = $derived(load.amps !== null)
  const text = $derived(
    inAmps
      ? fieldText(load.amps!, 'current', 'metric')
      : load.watts === null
        ? ''
        : fieldText(load.watts, 'power', 'metric'),
  )
  /** Volts the amperes are at; a load at the bank takes the bank's. */
  const volts = $derived(
    load.kind === 'ac'
      ? (load.volts ?? session.design!.ac.volts)
      : load.kind === 'converter'
        ? (load.volts ?? 12)
        : load.volts,
  )

  const at = (field: string) => `${session.base}${path}/${field}`

  /** What a day's energy or charge is divided by. */
  const hours = $derived(
    (load.windows ? load.windows.reduce((sum, w) => sum + lengthOf(w), 0) : (load.hours ?? 0)) *
      load.quantity *
      load.duty,
  )

  function put(reading: Reading) {
    session.edit([
      { path: at('watts'), value: reading.watts === undefined ? null : tidy(reading.watts) },
      { path: at('amps'), value: reading.amps === undefined ? null : tidy(reading.amps) },
      ...(reading.amps === undefined ? [] : [{ path: at('volts'), value: volts }]),
      { path: at('va'), value: reading.va ?? null },
      { path: at('powerFactor'), value: reading.powerFactor ?? null },
      { path: at('states'), value: null },
    ])
  }

  const tidy = (value: number) => Number(value.toPrecision(9))

  function read(typed: string) {
    if (typed.trim() === '') return { reason: 'watts or amperes are wanted' }
    const slipped = slip(typed, { hours, powerFactor: load.powerFactor, inAmps })
    if (slipped) {
      const offers = slipped.others.map((o) => ({ text: o.text, take: () => put(o.reading) }))
      if ('reason' in slipped) return { reason: slipped.reason, offers }
      const { watts, amps } = slipped.reading
      const reason =
        amps !== undefined
          ? refusal(at('amps'), amps, (b) => fieldText(b, 'current', 'metric'))
          : refusal(at('watts'), watts!, (b) => fieldText(b, 'power', 'metric'))
      if (reason) return { reason, offers }
      put(slipped.reading)
      return { understood: slipped.understood, offers }
    }
    const saysAmps = /[\d½¼¾]\s*m?a(mps?)?\s*$/i.test(typed)
    const saysWatts = /w(atts?)?\s*$/i.test(typed)
    const kind = saysAmps || (inAmps && !saysWatts) ? 'current' : 'power'
    const field = kind === 'current' ? 'amps' : 'watts'
    const write = (v: number) => fieldText(v, kind, 'metric')
    const refused = (v: number) => refusal(at(field), v, write)
    const parsed = parse(typed, kind, 'metric', (v) => refused(v) === null)
    const reason = 'value' in parsed ? refused(parsed.value) : null
    if (reason) return { reason }
    const said = answer(parsed, write, kind === 'current' ? putAmps : putWatts)
    return kind === 'current' && 'value' in parsed
      ? { ...said, understood: `${write(parsed.value)} at ${volts === null ? 'the bank’s volts' : `${num(volts)} V`}` }
      : said
  }

  function putAmps(amps: number) {
    session.edit([
      { path: at('amps'), value: amps },
      { path: at('watts'), value: null },
      { path: at('volts'), value: volts },
      { path: at('states'), value: null },
    ])
  }

  function putWatts(watts: number) {
    session.edit([
      { path: at('watts'), value: watts },
      { path: at('amps'), value: null },
      { path: at('va'), value: null },
      { path: at('powerFactor'), value: null },
      { path: at('states'), value: null },
    ])
  }
</script>

<TypedField
  label="one draws"
  {text}
  {read}
  path="{path}/watts"
  placeholder="by states"
  width="88px"
  faultsAt={[at('watts'), at('amps'), at('volts')]}
  snapshot={() => [
    { path: at('watts'), value: load.watts },
    { path: at('amps'), value: load.amps },
    { path: at('volts'), value: load.volts },
    { path: at('va'), value: load.va },
    { path: at('powerFactor'), value: load.powerFactor },
    { path: at('states'), value: load.states },
  ]}
/>
