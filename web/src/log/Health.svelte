<script lang="ts">
  import type { LogView } from '../api/client'
  import Drawing from '../drawing/Drawing.svelte'
  import { num } from '../ui/quantity'
  import { numberOf } from './days'

  /** Tests of the bank over the years, with their line to 80 %. */
  let { health }: { health: NonNullable<LogView['health']> } = $props()
  let width = $state(244)
  const HEIGHT = 84
  const YEAR = 365.25
  const year = (day: string) => 1970 + numberOf(day) / YEAR
  const first = $derived(Math.floor(year(health.tests[0].day)))
  const last = $derived(year(health.tests.at(-1)!.day))
  const end = $derived(Math.ceil(Math.min(Math.max(health.endsYear ?? last + 2, last + 1), last + 25)))
  const x = (y: number) => 34 + ((y - first) / Math.max(1, end - first)) * (width - 48)
  const top = $derived(Math.max(1, ...health.tests.map((t) => t.share)) + 0.02)
  const y = (share: number) => 6 + ((top - share) / (top - 0.76)) * (HEIGHT - 24)
  const share = $derived(health.tests.at(-1)!.share)
</script>

<Drawing name="Capacity tests" bind:width height={HEIGHT}>
  <text x="28" y={y(1) + 4} text-anchor="end" class="small">100</text>
  <line x1="34" x2={width - 14} y1={y(1)} y2={y(1)} stroke="var(--grid)" />
  <text x="28" y={y(0.8) + 4} text-anchor="end" class="small">80 %</text>
  <line x1="34" x2={width - 14} y1={y(0.8)} y2={y(0.8)} stroke="var(--ink)" stroke-dasharray="3 2" />
  {#if health.endsYear !== null}
    <line
      x1={x(last)}
      y1={y(share)}
      x2={x(Math.min(health.endsYear, end))}
      y2={y(0.8)}
      stroke="var(--ink-2)"
      stroke-dasharray="2 2"
      opacity={health.doubtful ? 0.5 : 1}
    />
    <text x={x(Math.min(health.endsYear, end))} y={y(0.8) - 5} text-anchor="end" class="fig" data-give
      >{Math.floor(health.endsYear)}</text
    >
  {/if}
  {#each health.tests as t, i (i)}
    <circle
      cx={x(year(t.day))}
      cy={y(t.share)}
      r="4"
      fill={i === health.tests.length - 1 ? 'var(--ink)' : 'var(--sheet)'}
      stroke="var(--ink)"
    />
  {/each}
  <text x={x(last) + 7} y={y(share) - 4} class="fig" data-give>{num(share * 100)} %</text>
  <text x="34" y={HEIGHT - 3} class="small">{first}</text>
  <text x={width - 14} y={HEIGHT - 3} text-anchor="end" class="small">{end}</text>
</Drawing>

<style>
  .small {
    font-size: 11px;
  }
</style>
