<script lang="ts">
  import type { Run } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { refusal } from '../../ui/limits'
  import { answer, fieldText, parse } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { metres, put } from './hand.svelte'
  import type { RunInHand } from './hand.svelte'

  /** The pieces of the main run, typed: what comes after a piece moves along with it. The negative has its shunt. */
  let { view }: { view: RunInHand } = $props()
  const bus = $derived(session.result!.bus!)
  const word = (part: string) => (part === 'switch' ? 'disconnect' : part)
  const pieces = $derived(
    bus.plus.slice(1).map((p, i) => ({
      from: bus.plus[i],
      to: p,
      label: `${word(bus.plus[i].part)} to ${word(p.part)}`,
      lengthM: p.atM - bus.plus[i].atM,
    })),
  )
  const shunt = $derived(bus.minus.find((p) => p.part === 'shunt')!)

  function read(typed: string, lengthM: number, apply: (by: number) => void) {
    if (typed.trim() === '') return { reason: 'a length is wanted' }
    const write = (b: number) => fieldText(b, 'length', session.units)
    const refused = (m: number) => {
      if (m < 0) return 'must be 0 or more'
      const reason = refusal(`${session.base}/runs/0/lengthM`, view.run.laid.lengthM + m - lengthM, write)
      return reason && `the whole run ${reason}`
    }
    const parsed = parse(typed, 'length', session.units, (m) => refused(m) === null)
    const reason = 'value' in parsed ? refused(parsed.value) : null
    return reason ? { reason } : answer(parsed, write, (m) => apply(m - lengthM))
  }

  /** Everything on the positive from a part on moves by so much. */
  function shift(part: string, by: number) {
    const change: Partial<Run> = {}
    let moved = false
    for (const p of bus.plus) {
      moved ||= p.part === part
      if (!moved) continue
      const at = Number((p.atM + by).toFixed(4))
      if (p.part === 'fuse') change.fuse = { ...view.doc.fuse, distanceM: at }
      if (p.part === 'switch')
        change.switch = { ratingA: null, maxDcV: null, absent: false, ...(view.doc.switch ?? {}), atM: at }
      if (p.part === 'bus') change.busM = at
    }
    const last = bus.plus.at(-1)!
    change.lengthM = Number((last.atM + by).toFixed(4))
    put(view.id, { ...change, conductorLengthsM: [] }, false)
  }
  const snapshot = () => [{ path: `${session.base}/runs`, value: session.bank!.runs }]
  const text = (m: number) => fieldText(Number(m.toFixed(3)), 'length', session.units)
</script>

<div class="pieces" data-testid="pieces">
  {#each pieces as piece (piece.to.part)}
    <TypedField
      label={piece.label}
      text={text(piece.lengthM)}
      read={(typed) => read(typed, piece.lengthM, (by) => shift(piece.to.part, by))}
      {snapshot}
      width="72px"
      path="/runs/main/{piece.to.part}"
    />
  {/each}
  <TypedField
    label="− post to shunt"
    text={text(shunt.atM)}
    read={(typed) =>
      read(typed, shunt.atM, (by) => put(view.id, { shuntM: Number((shunt.atM + by).toFixed(4)) }, false))}
    {snapshot}
    width="72px"
    path="/runs/main/shunt"
  />
  <span class="note total" data-testid="run-length"
    >{metres(view.run.laid.lengthM)} one way{view.run.laid.lengthPinned ? '' : ', not measured yet'}</span
  >
</div>

<style>
  .pieces {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: flex-end;
    margin-top: 2px;
  }
  .total {
    padding-bottom: 4px;
  }
</style>
