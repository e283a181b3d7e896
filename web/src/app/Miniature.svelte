<script lang="ts">
  import type { DesignCard } from '../api/client'
  import { coreOf, diameterMm, step125 } from '../drawing/geometry'

  /** A design's own path in small: strings, copper with its core, inverter, loads, each to the scale of its card. */
  let { card }: { card: DesignCard } = $props()
  const [width, height] = [268, 64]
  const strings = $derived(Math.min(card.parallel ?? 0, 12))
  const cells = $derived(Math.min(card.series ?? 1, 8))
  const volts = $derived(card.nominalV ?? 12.8)
  const gap = $derived(volts * step125(34 / volts))
  const diameter = $derived(card.areaMm2 ? diameterMm(card.areaMm2) * card.conductors : 0)
  const thick = $derived(diameter ? diameter * step125(9 / diameter) : 1)
  const [plus, minus] = $derived([height / 2 - gap / 2 - thick / 2, height / 2 + gap / 2 + thick / 2])
  const pitch = $derived(Math.min(16, 84 / Math.max(1, strings)))
  const end = $derived(card.inverterW ? 176 : 200)
  const most = $derived(Math.max(1, ...card.loadsW))
</script>

<svg {width} {height} viewBox="0 0 {width} {height}" aria-hidden="true" class="max-w-full self-start">
  {#if strings > 0}
    {#each [plus, minus] as y (y)}
      <line x1={96 - strings * pitch} x2={end} y1={y} y2={y} stroke="var(--copper-body)" stroke-width={thick} />
      <line
        x1={96 - strings * pitch}
        x2={end}
        y1={y}
        y2={y}
        stroke="var(--copper)"
        stroke-width={Math.max(1, coreOf(thick, card.share ?? 0))}
      />
    {/each}
    {#each Array.from({ length: strings }, (_, i) => i) as i (i)}
      {#each Array.from({ length: cells }, (_, c) => c) as c (c)}
        <rect
          x={96 - (i + 1) * pitch + 1.5}
          y={plus + thick / 2 + (c * gap) / cells + 0.5}
          width={Math.max(1, pitch - 3)}
          height={Math.max(1, gap / cells - 1)}
          fill="var(--sheet)"
          stroke="var(--ink)"
        />
      {/each}
    {/each}
  {:else}
    <rect x="12" y="16" width="84" height="32" fill="none" stroke="var(--ink-3)" stroke-dasharray="4 3" />
    <path d="M96 24 H176 M96 40 H176" stroke="var(--ink-3)" stroke-dasharray="4 3" />
  {/if}
  {#if card.inverterW}
    <rect
      x={end}
      y={plus - thick / 2 - 2}
      width="30"
      height={minus - plus + thick + 4}
      fill="var(--sheet)"
      stroke="var(--ink)"
    />
  {/if}
  {#each card.loadsW as watts, i (i)}
    <rect
      x="214"
      y={height / 2 - (card.loadsW.length * 9) / 2 + i * 9}
      width={Math.max(1, (watts / most) * 50)}
      height="5"
      fill="var(--ink)"
    />
  {/each}
</svg>
