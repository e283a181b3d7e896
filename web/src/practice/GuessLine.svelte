<script lang="ts">
  import type { Schemas } from '../api/client'
  import { num } from '../ui/quantity'

  /** What was said, what is right and what the rule of thumb gives, on one log axis. */
  interface Props {
    judged: Schemas['GuessJudged']
    typed: string
  }
  let { judged, typed }: Props = $props()
  let width = $state(700)
  const H = 104
  const spread = $derived(
    Math.max(2.2, ...[judged.ratio, judged.thumbSays / judged.right].map((r) => 1.15 * Math.max(r, 1 / r))),
  )
  const x = (ratio: number) => width / 2 + (Math.log(ratio) / Math.log(spread)) * (width / 2 - 40)
  const stops = $derived([0.125, 0.25, 0.5, 1, 2, 4, 8].filter((r) => Math.abs(Math.log(r)) <= Math.log(spread) + 1e-9))
  const names: Record<string, string> = {
    '0.125': '⅛',
    '0.25': '¼',
    '0.5': 'half',
    '1': '',
    '2': 'twice',
    '4': '× 4',
    '8': '× 8',
  }
  const decimals = (v: number) => (v < 10 ? 1 : 0)
  const anchor = (at: number) => (at < 90 ? 'start' : at > width - 90 ? 'end' : 'middle')
</script>

<div class="line" bind:clientWidth={width}>
  <svg
    {width}
    height={H}
    viewBox="0 0 {width} {H}"
    role="img"
    aria-label="You said {typed} {judged.question.unit}; {judged.words}"
  >
    <rect x={x(0.9)} y="30" width={x(1.1) - x(0.9)} height="34" fill="var(--hair)" />
    <path d="M20 47H{width - 20}" stroke="var(--ink-3)" />
    {#each stops as r (r)}
      <path d="M{x(r)} 42v10" stroke="var(--ink-3)" />
      {#if names[String(r)]}<text x={x(r)} y="78" text-anchor="middle" class="faint" style:font-size="11px"
          >{names[String(r)]}</text
        >{/if}
    {/each}
    <path
      d="M{x(judged.thumbSays / judged.right)} 38v26"
      stroke="var(--ink)"
      stroke-width="1.4"
      stroke-dasharray="3 2"
    />
    <text
      x={x(judged.thumbSays / judged.right)}
      y="96"
      text-anchor={anchor(x(judged.thumbSays / judged.right))}
      style:font-size="11.5px">by the rule of thumb {num(judged.thumbSays, decimals(judged.thumbSays))}</text
    >
    <path d="M{x(1)} 26v42" stroke="var(--ink)" stroke-width="2.2" />
    <circle cx={x(judged.ratio)} cy="47" r="7" fill="var(--sheet)" stroke="var(--copper)" stroke-width="3" />
    <text
      x={x(judged.ratio)}
      y="18"
      text-anchor={anchor(x(judged.ratio))}
      class="fig"
      style:font-size="18px"
      style:fill="var(--copper-text)">{typed} {judged.question.unit}<tspan class="word" dx="6">you said</tspan></text
    >
  </svg>
</div>

<style>
  .line {
    overflow: hidden;
    max-width: 860px;
    margin-top: 10px;
  }
  svg {
    display: block;
  }
  .faint {
    fill: var(--ink-2);
  }
  .word {
    font-size: 11.5px;
    font-weight: 400;
  }
</style>
