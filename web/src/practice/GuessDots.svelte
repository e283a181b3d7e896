<script lang="ts">
  import type { GuessTrend } from '../api/client'

  /** The last guesses as said ÷ right, on a log axis: the grey band is within a tenth, solid dots are in it. */
  let { trend, width = 250 }: { trend: GuessTrend; width?: number } = $props()
  const HEIGHT = 96
  const most = 4
  const y = (r: number) => HEIGHT / 2 - (Math.log2(Math.min(most, Math.max(1 / most, r))) / 2) * (HEIGHT / 2 - 8)
  const x = (i: number) => 44 + (i + 0.5) * ((width - 48) / 30)
  const marks = [
    [4, '× 4'],
    [2, 'twice'],
    [1, 'right'],
    [0.5, 'half'],
    [0.25, '¼'],
  ] as const
</script>

<svg {width} height={HEIGHT} viewBox="0 0 {width} {HEIGHT}" role="img" aria-label="Guesses: {trend.words}">
  <rect x="42" y={y(1.1)} width={width - 42} height={y(0.9) - y(1.1)} fill="var(--hair)" />
  <path d="M42 {y(1)}H{width}" stroke="var(--ink-3)" />
  {#each marks as [r, word] (r)}<text x="36" y={y(r) + 4} text-anchor="end" style:font-size="11px">{word}</text>{/each}
  {#each trend.ratios as r, i (i)}
    {@const near = Math.abs(r - 1) <= 0.1}
    <circle cx={x(i)} cy={y(r)} r="3" fill={near ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" />
  {/each}
</svg>
<p class="caption" data-testid="trend">{trend.words}</p>
