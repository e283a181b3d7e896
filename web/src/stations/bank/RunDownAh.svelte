<script lang="ts">
  import type { RunDownAnswer } from '../../api/client'
  import { num, say, stringName } from '../../ui/quantity'
  import Hatches from '../charging/Hatches.svelte'
  import RunDownFrame from './RunDownFrame.svelte'
  import { RunDownPaper } from './runDownPaper'

  /** Ampere-hours left of each unit; heavy is the one that ends its string, and what lies over it never comes out. */
  let { run }: { run: RunDownAnswer['run'] } = $props()
  const uid = $props.id()
  let width = $state(900)
  const most = $derived(Math.max(1, ...run.ahByUnit.flat().map((a) => a[0])) * 1.06)
  const paper = $derived(new RunDownPaper(width, 186, run.darkH, most))
  /** Alike strings lie on each other: one of them is drawn, with the others' names. */
  const strings = $derived.by(() => {
    const seen: { key: string; names: string[]; units: number[][]; ends: number }[] = []
    for (const [s, units] of run.ahByUnit.entries()) {
      const key = units.map((u) => `${num(u[0], 1)} ${num(u[Math.floor(u.length / 2)], 1)}`).join('|')
      const alike = seen.find((x) => x.key === key)
      if (alike) alike.names.push(stringName(s + 1))
      else {
        const last = units.map((u) => u.at(-1)!)
        seen.push({ key, names: [stringName(s + 1)], units, ends: last.indexOf(Math.min(...last)) })
      }
    }
    return seen
  })
  const bars = $derived(run.stranded.toSorted((a, b) => b.ah - a.ah).slice(0, 4))
  const pitch = $derived((paper.right - paper.end - 8) / Math.max(1, bars.length))
</script>

<RunDownFrame
  name="Ampere-hours left in each unit"
  title="ampere-hours left, unit by unit"
  unit="Ah"
  {paper}
  bind:width
>
  <Hatches id={uid} />
  {#each strings as s (s.key)}
    {#each s.units as ah, u (u)}
      {#if u !== s.ends && ah.some((a, i) => a - s.units[s.ends][i] > most * 0.004)}
        <path d="{paper.line(run.hours, ah)}{paper.back(run.hours, s.units[s.ends])}Z" fill="url(#{uid}-slanted)" />
      {/if}
    {/each}
    {#each s.units as ah, u (u)}
      <path d={paper.line(run.hours, ah)} fill="none" stroke="var(--ink)" stroke-width={u === s.ends ? 2.4 : 1} />
    {/each}
  {/each}
  {#each strings as s (s.key)}
    {#each s.units as ah, u (u)}
      {#if u === s.ends || ah.some((a, i) => a - s.units[s.ends][i] > most * 0.004)}
        <text x={paper.left + 8} y={paper.y(ah[0]) + (u === s.ends ? 15 : -5)} class="word" data-give
          >{s.names.map((n) => `${n}${s.units.length > 1 ? u + 1 : ''}`).join(', ')}
          <tspan class="fig">{say(ah[0], 'Ah')}</tspan></text
        >
      {/if}
    {/each}
  {/each}
  {#each run.drops as d, i (i)}
    <line
      x1={paper.x(d.hours)}
      x2={paper.x(d.hours)}
      y1={paper.top - 6}
      y2={paper.bottom}
      stroke="var(--ink)"
      stroke-width="1.4"
    />
  {/each}
  <line x1={paper.left} x2={paper.right} y1={paper.bottom} y2={paper.bottom} stroke="var(--ink)" />
  {#each bars as b, i (`${b.string} ${b.unit}`)}
    {@const x = paper.end + 8 + (i + 0.5) * pitch}
    <rect
      x={x - Math.min(11, pitch / 2 - 2)}
      y={paper.y(b.ah)}
      width={Math.min(22, pitch - 4)}
      height={Math.max(1, paper.bottom - paper.y(b.ah))}
      fill="var(--ink)"
    />
    <text {x} y={paper.y(b.ah) - 17} text-anchor="middle" class="word" data-give>{stringName(b.string)}{b.unit}</text>
    <text {x} y={paper.y(b.ah) - 4} text-anchor="middle" class="fig word" data-give>{num(b.ah)}</text>
  {/each}
</RunDownFrame>

<style>
  .word {
    font-size: 12px;
  }
</style>
