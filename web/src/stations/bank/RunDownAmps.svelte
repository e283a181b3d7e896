<script lang="ts">
  import type { RunDownAnswer } from '../../api/client'
  import { num, say, stringName } from '../../ui/quantity'
  import RunDownFrame from './RunDownFrame.svelte'
  import { RunDownPaper } from './runDownPaper'

  /** Amperes stacked by string until all is dark; a heavy upright where one opens. */
  let { run }: { run: RunDownAnswer['run'] } = $props()
  let width = $state(900)
  /** What a string is charged with by the others stands below the line of its own. */
  const sums = $derived(run.hours.map((_, i) => run.ampsByString.reduce((sum, a) => sum + Math.max(0, a[i]), 0)))
  const most = $derived(Math.max(1, ...sums) * 1.08)
  const paper = $derived(new RunDownPaper(width, 150, run.darkH, most))
  const layers = $derived.by(() => {
    let base = run.hours.map(() => 0)
    return run.ampsByString.map((amps, s) => {
      const from = base
      const to = base.map((b, i) => b + Math.max(0, amps[i]))
      base = to
      const up = paper.line(run.hours, to)
      const back = paper.back(run.hours, from)
      return {
        s,
        name: stringName(s + 1),
        d: `${up}${back}Z`,
        line: up,
        at: (from[0] + to[0]) / 2,
        tall: paper.y(from[0]) - paper.y(to[0]),
        first: amps[0],
      }
    })
  })
  /** Strings that open within a hair of each other are named together. */
  const opens = $derived.by(() => {
    const groups: { hours: number; names: string[] }[] = []
    for (const d of run.drops) {
      const last = groups.at(-1)
      if (last && paper.x(d.hours) - paper.x(last.hours) < 3) last.names.push(stringName(d.string))
      else groups.push({ hours: d.hours, names: [stringName(d.string)] })
    }
    return groups
  })
  const shades = ['var(--ink-2)', 'var(--hair)', 'var(--ink-3)', 'var(--grid)']
</script>

<RunDownFrame name="Amperes of the strings until dark" title="amperes" unit="A" {paper} bind:width>
  {#each layers as l (l.s)}
    <path d={l.d} fill={shades[l.s % shades.length]} data-string={l.name} />
    <path d={l.line} fill="none" stroke="var(--sheet)" stroke-width="1.4" />
  {/each}
  {#each layers as l (l.s)}
    {#if l.tall > 13}
      <text x={paper.left + 8} y={paper.y(l.at) + 4} class="word" data-give
        ><tspan class="fig">{say(l.first, 'A')}</tspan> string {l.name}</text
      >
    {/if}
  {/each}
  <rect
    x={paper.end}
    y={paper.top}
    width={paper.right - paper.end}
    height={paper.bottom - paper.top}
    fill="var(--ink)"
  />
  <text
    x={(paper.end + paper.right) / 2}
    y={(paper.top + paper.bottom) / 2 + 4}
    text-anchor="middle"
    style:fill="var(--sheet)"
    class="dark bare">dark</text
  >
  {#each opens as g (g.hours)}
    <line
      x1={paper.x(g.hours)}
      x2={paper.x(g.hours)}
      y1={paper.top - 6}
      y2={paper.bottom}
      stroke="var(--ink)"
      stroke-width="2.4"
    />
    <text x={paper.x(g.hours) - 5} y={paper.top - 8} text-anchor="end" class="word" data-give
      ><tspan class="fig">{say(g.hours, 'h')}</tspan>
      {g.names.join(', ')}
      {g.names.length === 1 ? 'opens' : 'open'}</text
    >
  {/each}
  <line x1={paper.left} x2={paper.right} y1={paper.bottom} y2={paper.bottom} stroke="var(--ink)" />
</RunDownFrame>

<style>
  .word {
    font-size: 12px;
  }
  .dark {
    font-weight: 700;
    font-size: 13px;
  }
</style>
