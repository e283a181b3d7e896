<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { practices } from '../../app/tables'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Fig from '../../ui/Fig.svelte'
  import { refusal } from '../../ui/limits'
  import { answer, fieldText, parse, say, sizeName } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { bench } from './bench.svelte'
  import { conductorName } from './conductors'
  import type { PlacedAmps } from './conductors'

  /** The conductor pointed at: what flows, what it loses, and its own length and size, edited in place. */
  let { c, index }: { c: PlacedAmps; index: number } = $props()

  const list = $derived(c.kind === 'jumper' ? 'jumpers' : c.kind === 'link' ? 'links' : 'leads')
  const placed = $derived(session.bank!.wiring[list])
  const at = $derived(placed.findIndex((p) => p.rail === c.rail && p.string === c.string && p.after === c.after))
  const own = $derived(at >= 0 ? placed[at] : null)
  const usual = $derived(session.result?.network?.copper[c.kind])
  const options = $derived.by(() => {
    const listed = sizes.map((s) => ({ value: s.size, text: s.size }))
    // A size of the other series that stands there is offered as well.
    return own?.size && !listed.some((s) => s.value === own.size)
      ? [{ value: own.size, text: own.size }, ...listed]
      : listed
  })
  const sizes = $derived(practices().find((p) => p.id === session.result?.mainRun?.laid.practice)?.sizes ?? [])

  interface Change {
    lengthM?: number | null
    size?: string | null
    parallel?: number | null
    jointMilliohm?: number | null
  }
  function put(change: Change, commit = false) {
    const next = {
      rail: c.rail,
      string: c.string,
      after: c.after,
      lengthM: own?.lengthM ?? null,
      size: own?.size ?? null,
      parallel: own?.parallel ?? null,
      jointMilliohm: own?.jointMilliohm ?? null,
      ...change,
    }
    const rest = placed.filter((_, i) => i !== at)
    const plain = next.lengthM === null && next.size === null && next.parallel === null && next.jointMilliohm === null
    session.edit({ path: `~/wiring/${list}`, value: plain ? rest : [...rest, next] }, commit)
  }

  function read(typed: string) {
    if (typed.trim() === '') {
      put({ lengthM: null })
      return {}
    }
    const write = (b: number) => fieldText(b, 'length', session.units)
    const refused = (m: number) => refusal(`${session.base}/wiring/${list}/0/lengthM`, m, write)
    const parsed = parse(typed, 'length', session.units, (m) => refused(m) === null)
    const reason = 'value' in parsed ? refused(parsed.value) : null
    return reason ? { reason } : answer(parsed, write, (lengthM) => put({ lengthM }))
  }

  function readJoint(typed: string) {
    if (typed.trim() === '') {
      put({ jointMilliohm: null })
      return {}
    }
    const refused = (v: number) => refusal(`${session.base}/wiring/${list}/0/jointMilliohm`, v, String)
    const parsed = parse(typed, 'number', session.units, (v) => refused(v) === null)
    const reason = 'value' in parsed ? refused(parsed.value) : null
    return reason
      ? { reason }
      : answer(
          parsed,
          (v) => fieldText(v, 'number', session.units),
          (jointMilliohm) => put({ jointMilliohm }),
        )
  }
</script>

<div class="strip" data-testid="conductor">
  <b class="name">{conductorName(c)}</b>
  <span class="figs"
    ><Fig ptr="/network/copper/placed/{index}/amps" unit="A" label="{conductorName(c)} at full load" size={17} />
    <span class={['note', c.heldA > c.ampacityA && 'over']}
      >of {say(c.ampacityA, 'A')}{c.as ? `, as ${c.as}` : ''}; {say(c.heldA, 'A')} while the fuse holds</span
    >
    <Fig ptr="/network/copper/placed/{index}/dropV" unit="V" label="lost over it" size={15} />
    <Fig ptr="/network/copper/placed/{index}/heatW" unit="W" label="heat in it" size={15} /></span
  >
  <TypedField
    label="length"
    text={own?.lengthM != null ? fieldText(own.lengthM, 'length', session.units) : ''}
    placeholder={fieldText(c.lengthM, 'length', session.units)}
    {read}
    path="/wiring/{list}/own/lengthM"
    width="70px"
    snapshot={() => [{ path: `${session.base}/wiring/${list}`, value: placed }]}
  />
  <TypedField
    label="bad lug, mΩ"
    text={own?.jointMilliohm != null ? fieldText(own.jointMilliohm, 'number', session.units) : ''}
    placeholder="sound"
    read={readJoint}
    path="/wiring/{list}/own/jointMilliohm"
    width="70px"
    snapshot={() => [{ path: `${session.base}/wiring/${list}`, value: placed }]}
  />
  <ChoiceField
    label="size"
    value={own?.size ?? null}
    {options}
    none="{sizeName(usual?.size ?? c.size, usual?.conductors ?? 1)}, as the rest"
    width="140px"
    path="/wiring/{list}/own/size"
    onpick={(size) => put({ size }, true)}
  />
  {#if own}
    <button
      type="button"
      class="link-copper min-h-6"
      onclick={() => put({ lengthM: null, size: null, parallel: null }, true)}>like the rest</button
    >
  {/if}
  <button type="button" class="btn btn-outline btn-xs ml-auto" onclick={() => (bench.conductor = null)}>Close</button>
</div>

<style>
  .strip {
    display: flex;
    margin-bottom: 10px;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 4px 12px;
    padding: 4px 8px 6px;
    background: var(--tint);
    border: 1px solid var(--ink);
  }
  .name {
    align-self: center;
  }
  .over {
    font-weight: 700;
    color: var(--ink);
  }
  .figs {
    display: inline-flex;
    align-items: baseline;
    gap: 10px;
    align-self: center;
  }
</style>
