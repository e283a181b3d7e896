<script lang="ts">
  import type { Build } from '../api/client'
  import AsTable from '../ui/AsTable.svelte'
  import { num, say } from '../ui/quantity'
  import { builds, letter, PRESENT } from './bench.svelte'

  /** Each figure as a line on which right is always better; letters that would cover each other share a place. */
  let { list, money }: { list: Build[]; money: (value: number, decimals?: number) => string } = $props()
  let width = $state(700)
  const narrow = $derived(width < 560)
  /** On a phone the name stands above its line. */
  const label = $derived(narrow ? 0 : 170)
  const ROW = $derived(narrow ? 40 : 25)

  interface Line {
    name: string
    of: (b: Build) => number | null
    less: boolean
    say: (v: number, b: Build) => string
  }
  const lines: Line[] = $derived([
    {
      name: 'Whole cost',
      of: (b) => (b.bill.unknown.length > 0 ? null : builds.even ? b.evenTotal : b.bill.total),
      less: true,
      say: (v) => money(v),
    },
    { name: 'Usable', of: (b) => b.usableWh, less: false, say: (v) => say(v, 'Wh') },
    { name: 'AC, continuous', of: (b) => b.continuousW, less: false, say: (v) => `${num(v)} W` },
    { name: 'AC at a start', of: (b) => b.startW, less: false, say: (v) => `${num(v)} W` },
    { name: 'Worst current', of: (b) => b.worstA, less: true, say: (v) => say(v, 'A') },
    { name: 'Connections to make', of: (b) => b.bill.connections, less: true, say: (v) => num(v) },
    { name: 'Heaviest lift', of: (b) => b.heaviestKg, less: true, say: (v) => `${num(v, 1)} kg` },
    { name: 'All units together', of: (b) => b.massKg, less: true, say: (v) => `${num(v)} kg` },
    { name: 'Left if a unit fails', of: (b) => b.leftWh, less: false, say: (v) => (v > 0 ? say(v, 'Wh') : 'nothing') },
    {
      name: 'Upkeep a year',
      of: (b) => b.bill.upkeepMinutes,
      less: true,
      say: (v) => (v > 0 ? `${num(v)} min` : 'none'),
    },
    {
      name: 'Smallest step to grow',
      of: (b) => (b.growth.not ? null : b.growth.price),
      less: true,
      say: (v, b) => (narrow ? money(v) : `${money(v)} for ${say(b.growth.usableWh, 'Wh')}`),
    },
    { name: 'Years it serves', of: (b) => b.lifeYears, less: false, say: (v) => num(v, v % 1 ? 1 : 0) },
    { name: 'Per usable kWh', of: (b) => b.perUsableKwh, less: true, say: (v) => money(v) },
    { name: 'Per delivered kWh', of: (b) => b.perDeliveredKwh, less: true, say: (v) => money(v, 2) },
    { name: 'Per year held', of: (b) => b.perYear, less: true, say: (v) => money(v) },
  ])
  interface Place {
    at: number
    x: number
    letters: number[]
    text: string
  }
  const room = (p: Place) => 20 * p.letters.length + p.text.length * 7 + 8
  const GAP = 4
  const laid = $derived(
    lines.map((line) => {
      const values = list.map((b) => line.of(b))
      const known = values.filter((v): v is number => v !== null)
      const [low, high] = [Math.min(...known), Math.max(...known)]
      const at = (v: number) => (high === low ? 1 : line.less ? (high - v) / (high - low) : (v - low) / (high - low))
      const places: Place[] = []
      for (const [i, v] of values.entries()) {
        if (v === null) continue
        const text = line.say(v, list[i])
        const same = places.find((p) => p.text === text)
        if (same) same.letters.push(i)
        else places.push({ at: at(v), x: 0, letters: [i], text })
      }
      places.sort((a, b) => a.at - b.at)
      return { ...line, places, none: values.flatMap((v, i) => (v === null ? [i] : [])) }
    }),
  )
  /** Where the letters of a line need more than there is, the drawing scrolls by itself. */
  const wide = $derived(
    Math.max(width, ...laid.map((l) => label + GAP + l.places.reduce((sum, p) => sum + room(p) + GAP, 0))),
  )
  const drawn = $derived(
    laid.map((line) => {
      const x0 = label + GAP
      const places = line.places.map((p) => ({ ...p, x: x0 + p.at * (wide - room(p) - x0) }))
      // Pushed left where one would cover its better, then right again where that was too far.
      for (let i = places.length - 2; i >= 0; i--)
        places[i].x = Math.min(places[i].x, places[i + 1].x - room(places[i]) - GAP)
      let from = x0
      for (const p of places) {
        p.x = Math.max(p.x, from)
        from = p.x + room(p) + GAP
      }
      return { ...line, places }
    }),
  )
  const subject = $derived(Math.max(0, builds.keys.indexOf(builds.subject)))
</script>

<div class="lines" bind:clientWidth={width}>
  <svg
    width={wide}
    height={lines.length * ROW + 6}
    role="img"
    aria-label="Figures of the builds, right is better on every line; as a table below"
  >
    {#each drawn as line, n (line.name)}
      {@const y = n * ROW + (narrow ? ROW - 12 : ROW / 2)}
      <text x="0" y={narrow ? y - 14 : y + 4} class="name"
        >{line.name}{line.none.length > 0 ? `, not ${line.none.map(letter).join(', ')}` : ''}</text
      >
      <line x1={label} x2={wide} y1={y} y2={y} stroke="var(--grid)" />
      {#each line.places as p (p.text + p.letters.join())}
        {#each p.letters as i, k (i)}
          {@const on = i === subject}
          <rect
            x={p.x + k * 20}
            y={y - 9}
            width="18"
            height="18"
            fill={on ? 'var(--copper)' : 'var(--sheet)'}
            stroke={on ? 'var(--copper)' : 'var(--ink)'}
            stroke-width="1.4"
          />
          <text
            x={p.x + k * 20 + 9}
            y={y + 4.5}
            text-anchor="middle"
            class="fig"
            style:fill={on ? 'var(--on-copper)' : 'var(--ink)'}>{letter(i)}</text
          >
        {/each}
        <text x={p.x + p.letters.length * 20 + 2} y={y + 4.5} class="fig value">{p.text}</text>
      {/each}
    {/each}
  </svg>
</div>
<AsTable
  heads={['figure', ...list.map((b, i) => `${letter(i)}, ${builds.keys[i] === PRESENT ? 'as designed' : b.name}`)]}
  rows={[]}
  plain={[
    ...lines.map((line) => [
      line.name,
      ...list.map((b) => (line.of(b) === null ? 'not known or not to be had' : line.say(line.of(b)!, b))),
    ]),
    ['Stops first, for good', ...list.map((b) => b.bottleneck ?? '')],
    ['Stops first, at a start', ...list.map((b) => b.startBottleneck ?? '')],
    ['Cable and fuse', ...list.map((b) => `${b.cable}, ${b.fuseA ?? 'no'} A`)],
    ['To grow', ...list.map((b) => b.growth.not ?? `${b.growth.units} more`)],
  ]}
/>

<style>
  .lines {
    overflow-x: auto;
    overflow-y: hidden;
  }
  .name {
    font-size: 12.5px;
  }
  .fig {
    font-size: 13px;
  }
  .value {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 4px;
  }
</style>
