<script lang="ts">
  import { session } from '../../app/session.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { say, sayVolts } from '../../ui/quantity'
  import type { RunInHand } from './hand.svelte'
  import type { Part } from './loop'

  /**
   * Volts falling along both poles. At the left the gap is what the run begins with, less what the inverter stops at: where the lines meet,
   * it stops. Without a cut-off twice the drop that is allowed closes the gap.
   */
  interface Props {
    view: RunInHand
    plus: Part[]
    minus: Part[]
    plusX: number[]
    minusX: number[]
    w1: number
    w2: number
    post: number
    end: number
    left: number
    narrow: boolean
  }
  let { view, plus, minus, plusX, minusX, w1, w2, post, end, left, narrow }: Props = $props()
  const e = $derived(session.result!)
  const r = $derived(view.run)
  const low = $derived(e.voltage!.lowV)
  const atInverter = $derived(view.main && plus.at(-1)!.kind === 'inverter')
  const cutOff = $derived(atInverter ? (e.envelope?.cutOffV ?? null) : null)
  const nominal = $derived(view.circuit?.nominalV ?? e.voltage!.nominalV)
  const full = $derived(cutOff !== null && cutOff < low ? low - cutOff : 2 * r.dropLimit * nominal)
  const tall = $derived(w2 - w1)
  const down = (volts: number) => Math.min(tall, (volts / full) * tall)

  function line(parts: Part[], xs: number[], from: number, sign: 1 | -1, surge = false): string {
    let d = `M${post} ${from}`
    for (const [i, p] of parts.entries()) {
      const before = surge ? (p.surgeBefore ?? 0) : p.before
      const lost = surge ? (p.surge ?? 0) : p.lost
      d += ` L${xs[i]} ${from + sign * down(before)} V${from + sign * down(lost)}`
    }
    return d
  }
  const surges = $derived(plus.some((p) => p.surge !== null))
  const told = $derived(cutOff !== null && !!e.envelope?.surgeEndV && surges && !narrow)
  const mid = $derived((w1 + w2) / 2)
  const limit = $derived(down((r.dropLimit * nominal) / 2))
  const endX = $derived(plusX.at(-1)!)
</script>

{#if r.drop.v !== null && tall > 24}
  <path d="{line(plus, plusX, w1, 1)} V{w1} H{post} Z" fill="var(--page)" stroke="none" />
  <path d="{line(minus, minusX, w2, -1)} V{w2} H{post} Z" fill="var(--page)" stroke="none" />
  <path d={line(plus, plusX, w1, 1)} fill="none" stroke="var(--ink)" stroke-width="1.4" />
  <path d={line(minus, minusX, w2, -1)} fill="none" stroke="var(--ink)" stroke-width="1.4" />
  {#if surges}
    <path d={line(plus, plusX, w1, 1, true)} fill="none" stroke="var(--ink)" stroke-dasharray="3 3" />
    <path d={line(minus, minusX, w2, -1, true)} fill="none" stroke="var(--ink)" stroke-dasharray="3 3" />
  {/if}
  {#each [w1 + limit, w2 - limit] as at (at)}<line
      x1={endX - 12}
      x2={endX + 8}
      y1={at}
      y2={at}
      stroke="var(--copper)"
      stroke-width="2"
    />{/each}
  {#if view.main}
    <FigText
      ptr="/voltage/lowV"
      unit="V"
      label="at the posts, nearly empty"
      x={narrow || post - left < 120 ? post + 8 : post - 14}
      y={mid + 6}
      anchor={narrow || post - left < 120 ? 'start' : 'end'}
      size={narrow ? 15 : 19}
    />
    {#if !narrow && post - left >= 120}<text x={post - 14} y={mid + 21} text-anchor="end" class="faint"
        >at the posts, worst</text
      >{/if}
  {/if}
  <FigText
    ptr="{view.ptr}/drop/fraction"
    unit="fraction"
    label="drop"
    x={(post + endX) / 2 + (narrow ? 0 : 4)}
    y={mid + 5}
    anchor="middle"
    size={16}
    after={narrow ? 'lost' : `lost at full load, ${say(r.dropLimit, 'fraction')} allowed`}
  />
  {#if r.drop.endV !== null}
    <FigText
      ptr="{view.ptr}/drop/endV"
      unit="V"
      label={atInverter ? 'at the inverter' : 'at its end'}
      x={end - 8}
      y={mid + (told ? 2 : 6)}
      anchor="end"
      size={narrow ? 15 : 19}
    />
  {:else}
    <FigText
      ptr="{view.ptr}/drop/v"
      unit="V"
      label="lost"
      x={end - 8}
      y={mid + 6}
      anchor="end"
      size={17}
      after="lost"
    />
  {/if}
  {#if told}
    <FigText
      ptr="/envelope/surgeEndV"
      unit="V"
      label="at the inverter at the worst start"
      x={end - 8}
      y={mid + 18}
      anchor="end"
      size={13}
      before="dashed: worst start"
      after="stops at {sayVolts(cutOff!)}"
    />
  {/if}
{/if}

<style>
  .faint {
    fill: var(--ink-2);
  }
</style>
