<script lang="ts">
  import type { BringUpStep } from '../api/client'
  import { bringUp } from './bringup.svelte'
  import { written } from './meterText'

  /** Readings of one kind on one axis: the one that is not as the others stands apart. */
  interface Props {
    step: BringUpStep
  }
  let { step }: Props = $props()

  const ROW = 22
  let width = $state(700)
  const W = $derived(Math.max(300, width))
  const LEFT = 190
  const family = (key: string) => key.replace(/[-\d]+$/, '').replace(/-(positive|negative)-?$/, '')
  const kin = $derived(
    bringUp.steps.filter((s) => s.part === step.part && s.unit === step.unit && family(s.key) === family(step.key)),
  )
  const valueOf = (s: BringUpStep) => {
    const e = bringUp.record?.entries[s.entries.at(-1) ?? -1]
    return e?.what === 'read' && s.verdict ? (e.value ?? null) : null
  }
  const rows = $derived(kin.map((s) => ({ s, value: valueOf(s), e: s.expected! })))
  const span = $derived.by(() => {
    const values = rows.map((r) => r.value).filter((v) => v !== null)
    const low = Math.min(...rows.map((r) => r.e.okFrom), ...values)
    const high = Math.max(...rows.map((r) => r.e.okTo), ...values)
    const pad = 0.06 * (high - low || 1)
    return { low: low - pad, high: high + pad }
  })
  const x = $derived((v: number) => LEFT + ((v - span.low) / (span.high - span.low)) * (W - LEFT - 60))
</script>

{#if rows.length > 1}
  <figure class="kin" data-testid="siblings" bind:clientWidth={width}>
    <figcaption>
      <b>{step.part}</b> <span class="caption">grey: in order; dot: what was read; black: not in order</span>
    </figcaption>
    <svg width={W} height={rows.length * ROW + 6} role="img" aria-label="{rows.length} readings beside each other">
      {#each rows as { s, value, e }, i (s.key)}
        {@const y = i * ROW + 13}
        <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
        <g class="row" onclick={() => (bringUp.hand = s.key)}>
          <rect x="0" y={y - 11} width={W} height={ROW} fill={s.key === step.key ? 'var(--tint)' : 'transparent'} />
          <text x="4" y={y + 4}>{s.title}</text>
          <rect x={x(e.okFrom)} y={y - 5} width={Math.max(2, x(e.okTo) - x(e.okFrom))} height="10" fill="var(--hair)" />
          {#if e.value !== null && e.value !== undefined}<line
              x1={x(e.value)}
              x2={x(e.value)}
              y1={y - 7}
              y2={y + 7}
              stroke="var(--ink)"
              stroke-width="1.6"
            />{/if}
          {#if value !== null}
            <circle
              cx={x(value)}
              cy={y}
              r="5"
              fill={s.state === 'done' ? 'var(--sheet)' : 'var(--ink)'}
              stroke="var(--ink)"
              stroke-width="1.6"
            />
            <text class="fig" x={W - 4} y={y + 4} text-anchor="end">{written(value, s.decimals)} {s.unit}</text>
          {/if}
        </g>
      {/each}
    </svg>
  </figure>
{/if}

<style>
  .kin {
    margin: 10px 0 0;
    overflow: hidden;
  }
  figcaption {
    font-size: 12.5px;
    margin-bottom: 2px;
  }
  .row {
    cursor: pointer;
  }
</style>
