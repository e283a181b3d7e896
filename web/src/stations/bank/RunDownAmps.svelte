<script lang="ts">
  import type { RunDownAnswer } from '../../api/client'
  import Drawing from '../../drawing/Drawing.svelte'
  import { ticks } from '../../drawing/geometry'
  import { num, say, stringName } from '../../ui/quantity'
  import { HoursAxis } from './runDownAxis'

  /** Amperes stacked by string until all is dark; a heavy upright where one opens. */
  let { run }: { run: RunDownAnswer['run'] } = $props()
  let width = $state(900)
  const height = 150
  const [top, bottom] = [22, 132]
  const axis = $derived(new HoursAxis(56, width - 6, run.darkH))
  /** What a string is charged with by the others stands below the line of its own. */
  const sums = $derived(run.hours.map((_, i) => run.ampsByString.reduce((sum, a) => sum + Math.max(0, a[i]), 0)))
  const most = $derived(Math.max(1, ...sums) * 1.08)
  const y = (amps: number) => bottom - (amps / most) * (bottom - top)
  const layers = $derived.by(() => {
    let base = run.hours.map(() => 0)
    return run.ampsByString.map((amps, s) => {
      const from = base
      const to = base.map((b, i) => b + Math.max(0, amps[i]))
      base = to
      const up = to.map((a, i) => `${i === 0 ? 'M' : 'L'}${axis.x(run.hours[i])} ${y(a)}`).join('')
      const back = from
        .map((a, i) => `L${axis.x(run.hours[i])} ${y(a)}`)
        .reverse()
        .join('')
      return {
        s,
        name: stringName(s + 1),
        d: `${up}${back}Z`,
        line: up,
        at: (from[0] + to[0]) / 2,
        tall: y(from[0]) - y(to[0]),
        first: amps[0],
      }
    })
  })
  /** Strings that open within a hair of each other are named together. */
  const opens = $derived.by(() => {
    const groups: { hours: number; names: string[] }[] = []
    for (const d of run.drops) {
      const last = groups.at(-1)
      if (last && axis.x(d.hours) - axis.x(last.hours) < 3) last.names.push(stringName(d.string))
      else groups.push({ hours: d.hours, names: [stringName(d.string)] })
    }
    return groups
  })
  const shades = ['var(--ink-2)', 'var(--hair)', 'var(--ink-3)', 'var(--grid)']
</script>

<Drawing name="Amperes of the strings until dark" bind:width {height}>
  <text x="0" y="13" class="title">amperes</text>
  {#each ticks(most, 4).filter((t) => t <= most) as t (t)}
    <line x1={axis.left} x2={axis.end} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={axis.left - 6} y={y(t) + 4} text-anchor="end" class="axis">{t === 0 ? '0 A' : num(t)}</text>
  {/each}
  {#each layers as l (l.s)}
    <path d={l.d} fill={shades[l.s % shades.length]} data-string={l.name} />
    <path d={l.line} fill="none" stroke="var(--sheet)" stroke-width="1.4" />
  {/each}
  {#each layers as l (l.s)}
    {#if l.tall > 13}
      <text x={axis.left + 8} y={y(l.at) + 4} class="word" data-give
        ><tspan class="fig">{say(l.first, 'A')}</tspan> string {l.name}</text
      >
    {/if}
  {/each}
  <rect x={axis.end} y={top} width={axis.right - axis.end} height={bottom - top} fill="var(--ink)" />
  <text
    x={(axis.end + axis.right) / 2}
    y={(top + bottom) / 2 + 4}
    text-anchor="middle"
    style:fill="var(--sheet)"
    class="dark bare">dark</text
  >
  {#each opens as g (g.hours)}
    <line x1={axis.x(g.hours)} x2={axis.x(g.hours)} y1={top - 6} y2={bottom} stroke="var(--ink)" stroke-width="2.4" />
    <text x={axis.x(g.hours) - 5} y={top - 8} text-anchor="end" class="word" data-give
      ><tspan class="fig">{say(g.hours, 'h')}</tspan>
      {g.names.join(', ')}
      {g.names.length === 1 ? 'opens' : 'open'}</text
    >
  {/each}
  <line x1={axis.left} x2={axis.right} y1={bottom} y2={bottom} stroke="var(--ink)" />
  {#each axis.marks() as h (h)}
    <text x={axis.x(h)} y={height - 4} text-anchor={h === 0 ? 'start' : 'middle'} class="axis" data-give
      >{h === 0 ? '0 h' : num(h, run.darkH < 4 ? 1 : 0)}</text
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
  .word {
    font-size: 12px;
  }
  .dark {
    font-weight: 700;
    font-size: 13px;
  }
</style>
