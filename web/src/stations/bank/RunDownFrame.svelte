<script lang="ts">
  import type { Snippet } from 'svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import { num } from '../../ui/quantity'
  import type { RunDownPaper } from './runDownPaper'

  /** The scales of a run-down, and what is drawn between them. */
  let {
    name,
    title,
    unit,
    paper,
    width = $bindable(),
    children,
  }: { name: string; title: string; unit: string; paper: RunDownPaper; width: number; children: Snippet } = $props()
</script>

<Drawing {name} bind:width height={paper.height}>
  <text x="0" y="13" class="title">{title}</text>
  {#each paper.values() as t (t)}
    <line x1={paper.left} x2={paper.end} y1={paper.y(t)} y2={paper.y(t)} stroke="var(--grid)" />
    <text x={paper.left - 6} y={paper.y(t) + 4} text-anchor="end" class="axis">{t === 0 ? `0 ${unit}` : num(t)}</text>
  {/each}
  {@render children()}
  {#each paper.hours() as h (h)}
    <text x={paper.x(h)} y={paper.height - 4} text-anchor={h === 0 ? 'start' : 'middle'} class="axis" data-give
      >{h === 0 ? '0 h' : num(h, paper.darkH < 4 ? 1 : 0)}</text
    >
  {/each}
</Drawing>

<style>
  .title {
    font-weight: 700;
    font-size: 12.5px;
  }
  .axis {
    font-size: 11px;
    fill: var(--ink-2);
  }
</style>
