<script lang="ts">
  import type { RunDownAnswer } from '../../api/client'
  import Drawing from '../../drawing/Drawing.svelte'
  import { ticks } from '../../drawing/geometry'
  import { num, say, stringName } from '../../ui/quantity'
  import Hatches from '../charging/Hatches.svelte'
  import { HoursAxis } from './runDownAxis'

  /** Ampere-hours left of each unit; heavy is the one that ends its string, and what lies over it never comes out. */
  let { run }: { run: RunDownAnswer['run'] } = $props()
  const uid = $props.id()
  let width = $state(900)
  const height = 186
  const [top, bottom] = [22, 166]
  const axis = $derived(new HoursAxis(56, width - 6, run.darkH))
  const most = $derived(Math.max(1, ...run.ahByUnit.flat().map((a) => a[0])) * 1.06)
  const y = (ah: number) => bottom - (ah / most) * (bottom - top)
  const path = (ah: number[]) => ah.map((a, i) => `${i === 0 ? 'M' : 'L'}${axis.x(run.hours[i])} ${y(a)}`).join('')
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
  const pitch = $derived((axis.right - axis.end - 8) / Math.max(1, bars.length))
</script>

<Drawing name="Ampere-hours left in each unit" bind:width {height}>
  <Hatches id={uid} />
  <text x="0" y="13" class="title">ampere-hours left, unit by unit</text>
  {#each ticks(most, 4).filter((t) => t <= most) as t (t)}
    <line x1={axis.left} x2={axis.end} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={axis.left - 6} y={y(t) + 4} text-anchor="end" class="axis">{t === 0 ? '0 Ah' : num(t)}</text>
  {/each}
  {#each strings as s (s.key)}
    {#each s.units as ah, u (u)}
      {#if u !== s.ends && ah.some((a, i) => a - s.units[s.ends][i] > most * 0.004)}
        <path
          d="{path(ah)}{s.units[s.ends]
            .map((a, i) => `L${axis.x(run.hours[i])} ${y(a)}`)
            .reverse()
            .join('')}Z"
          fill="url(#{uid}-slanted)"
        />
      {/if}
    {/each}
    {#each s.units as ah, u (u)}
      <path d={path(ah)} fill="none" stroke="var(--ink)" stroke-width={u === s.ends ? 2.4 : 1} />
    {/each}
  {/each}
  {#each strings as s (s.key)}
    {#each s.units as ah, u (u)}
      {#if u === s.ends || ah.some((a, i) => a - s.units[s.ends][i] > most * 0.004)}
        <text x={axis.left + 8} y={y(ah[0]) + (u === s.ends ? 15 : -5)} class="word" data-give
          >{s.names.map((n) => `${n}${s.units.length > 1 ? u + 1 : ''}`).join(', ')}
          <tspan class="fig">{say(ah[0], 'Ah')}</tspan></text
        >
      {/if}
    {/each}
  {/each}
  {#each run.drops as d, i (i)}
    <line x1={axis.x(d.hours)} x2={axis.x(d.hours)} y1={top - 6} y2={bottom} stroke="var(--ink)" stroke-width="1.4" />
  {/each}
  <line x1={axis.left} x2={axis.right} y1={bottom} y2={bottom} stroke="var(--ink)" />
  {#each bars as b, i (`${b.string} ${b.unit}`)}
    {@const x = axis.end + 8 + (i + 0.5) * pitch}
    <rect
      x={x - Math.min(11, pitch / 2 - 2)}
      y={y(b.ah)}
      width={Math.min(22, pitch - 4)}
      height={Math.max(1, bottom - y(b.ah))}
      fill="var(--ink)"
    />
    <text {x} y={y(b.ah) - 17} text-anchor="middle" class="word" data-give>{stringName(b.string)}{b.unit}</text>
    <text {x} y={y(b.ah) - 4} text-anchor="middle" class="fig word" data-give>{num(b.ah)}</text>
  {/each}
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
</style>
