<script lang="ts">
  import type { BringUpStep } from '../api/client'
  import { written } from './meterText'

  /** The reading on a line of numbers: what is in order, what is worth a look, and beyond it solid black. */
  interface Props {
    step: BringUpStep
    value: number | null
  }
  let { step, value }: Props = $props()

  let width = $state(340)
  const W = $derived(Math.max(180, width))
  const PAD = 10
  const e = $derived(step.expected!)
  const span = $derived.by(() => {
    const from = e.lookFrom === e.okFrom && e.okFrom >= 0 && step.unit === 'mV' ? 0 : e.lookFrom
    const width = Math.max(e.lookTo - from, 1e-9)
    let [low, high] = [from === 0 ? 0 : from - 0.15 * width, e.lookTo + 0.25 * width]
    if (value !== null) {
      // One that is far out stands at the end of the line.
      low = Math.max(Math.min(low, value - 0.05 * width), low - width)
      high = Math.min(Math.max(high, value + 0.05 * width), high + width)
    }
    return { low, high }
  })
  const x = $derived((v: number) => {
    const share = (v - span.low) / (span.high - span.low)
    return PAD + Math.min(1, Math.max(0, share)) * (W - 2 * PAD)
  })
  const out = $derived(value !== null && (value > e.okTo || value < e.okFrom))
</script>

<div bind:clientWidth={width} class="line">
  <svg width={W} height="46" viewBox="0 0 {W} 46" role="img" aria-label={e.words}>
    <line x1={PAD} x2={W - PAD} y1="26" y2="26" stroke="var(--ink-3)" />
    <rect x={x(e.okFrom)} y="23" width={Math.max(2, x(e.okTo) - x(e.okFrom))} height="6" fill="var(--hair)" />
    {#if e.value !== null && e.value !== undefined}
      <line x1={x(e.value)} x2={x(e.value)} y1="14" y2="30" stroke="var(--ink)" stroke-width="2" />
    {/if}
    <line x1={x(e.okTo)} x2={x(e.okTo)} y1="16" y2="30" stroke="var(--ink)" stroke-dasharray="2 2" />
    {#if value !== null}
      {#if out}<line
          x1={value > e.okTo ? x(e.okTo) : x(e.okFrom)}
          x2={x(value)}
          y1="26"
          y2="26"
          stroke="var(--ink)"
          stroke-width="5"
        />{/if}
      <circle cx={x(value)} cy="26" r="6" fill="var(--ink)" />
      <text class="fig" x={x(value)} y="10" text-anchor={x(value) > W - 40 ? 'end' : x(value) < 40 ? 'start' : 'middle'}
        >{written(value, step.decimals)}</text
      >
    {/if}
    <text x={x(e.okFrom)} y="43" text-anchor={x(e.okFrom) < 30 ? 'start' : 'middle'} class="fig"
      >{written(e.okFrom, step.decimals)}</text
    >
    {#if x(e.okTo) - x(e.okFrom) > 44}<text
        x={x(e.okTo)}
        y="43"
        text-anchor={x(e.okTo) > W - 40 ? 'end' : 'middle'}
        class="fig">{written(e.okTo, step.decimals)}</text
      >{/if}
  </svg>
</div>

<style>
  svg {
    display: block;
  }
  .line {
    width: 100%;
    max-width: 420px;
  }
</style>
