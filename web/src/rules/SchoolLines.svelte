<script lang="ts">
  import type { SchoolWhole } from '../api/client'
  import Mark from '../ui/Mark.svelte'
  import AsTable from '../ui/AsTable.svelte'
  import { rules } from './rules.svelte'

  /** The whole design under each school on number lines: equal values side by side with one figure, the design's own joined by the band. */
  const letters = { cautious: 'C', typical: 'T', lean: 'L' }
  const letter = (w: SchoolWhole) => (w.set ? letters[w.set] : 'D')
  let width = $state(460)
  const BOX = 19
  /** On a narrow sheet a row's name stands over it. */
  const narrow = $derived(width < 430)
  const LABEL = $derived(narrow ? 0 : 98)
  const ROW = $derived(narrow ? 44 : 28)
  interface Group {
    letters: string[]
    text: string
    x: number
    w: number
    below: boolean
  }
  const rows = $derived(
    (rules.wholes[0]?.figures ?? []).map((figure, r) => {
      const all = rules.wholes.map((w) => ({ letter: letter(w), figure: w.figures[r] }))
      const values = all.map((a) => a.figure.value).filter((v) => v !== null)
      const [low, high] = [Math.min(...values), Math.max(...values)]
      const groups: (Group & { value: number | null })[] = []
      for (const a of [...all].sort((p, q) => (p.figure.value ?? Infinity) - (q.figure.value ?? Infinity))) {
        const known = groups.find((g) => g.text === a.figure.text)
        if (known) known.letters.push(a.letter)
        else groups.push({ letters: [a.letter], text: a.figure.text, value: a.figure.value, x: 0, w: 0, below: false })
      }
      for (const g of groups) g.w = g.letters.length * (BOX + 1) + g.text.length * 7.7 + 10
      // To scale, as far as none stands on another; where all together need more than there is, every other one stands below.
      const two = groups.reduce((sum, g) => sum + g.w, 0) > width - LABEL
      for (const part of two ? [0, 1] : [0]) {
        const line = two ? groups.filter((_, n) => n % 2 === part) : groups
        const room = width - LABEL - (line.at(-1)?.w ?? 0)
        let next = LABEL
        for (const g of line) {
          const share = g.value === null ? 1 : high === low ? 0 : (g.value - low) / (high - low)
          g.x = Math.max(LABEL + share * room, next)
          g.below = part === 1
          next = g.x + g.w
        }
        let end = width
        for (const g of line.toReversed()) {
          g.x = Math.max(LABEL, Math.min(g.x, end - g.w))
          end = g.x
        }
      }
      const mine = groups.find((g) => g.letters.includes('D'))
      const at = mine ? mine.x + mine.letters.indexOf('D') * (BOX + 1) + BOX / 2 : LABEL
      return { label: figure.label, groups, two, at, down: mine?.below === true }
    }),
  )
  /** Too many to be counted by eye. */
  const many = $derived(rules.wholes.some((w) => w.wrong + w.toLookAt > 9))
  const SECOND = 23
  /** Each row's middle, from the top; one of two lines takes more room. */
  const tops = $derived.by(() => {
    let y = 0
    return rows.map((r) => {
      const at = y + (narrow ? 32 : ROW / 2)
      y += ROW + (r.two ? SECOND : 0)
      return at
    })
  })
  const height = $derived(rows.reduce((sum, r) => sum + ROW + (r.two ? SECOND : 0), 0))
  const band = $derived(rows.map((r, i) => `${r.at},${tops[i] + (r.down ? SECOND : 0)}`).join(' '))
</script>

{#if rules.wholes.length > 0}
  <h2 class="font-bold text-[13.5px]">The whole design, as advised, under each school</h2>
  <p class="key">
    <span><b class="box d">D</b> as it stands</span><span><b class="box">C</b> cautious</span><span
      ><b class="box">T</b> typical</span
    ><span><b class="box">L</b> lean</span>
  </p>
  <div bind:clientWidth={width}>
    <svg {width} {height} role="img" aria-label="The design under each school, as a table below" class="block">
      {#each rows as r, i (r.label)}<line x1={LABEL} x2={width} y1={tops[i]} y2={tops[i]} stroke="var(--hair)" />{/each}
      <polyline points={band} fill="none" stroke="var(--copper-body)" stroke-width="7" stroke-linejoin="round" />
      {#each rows as r, n (r.label)}
        <text x="0" y={tops[n] + (narrow ? -15 : 4.5)} class="label">{r.label}</text>
        {#each r.groups as g (g.text)}
          {@const y = tops[n] + (g.below ? SECOND : 0)}
          <rect
            x={g.x + g.letters.length * (BOX + 1)}
            y={y - 9}
            width={g.w - g.letters.length * (BOX + 1) - 4}
            height="18"
            fill="var(--sheet)"
          />
          {#each g.letters as l, i (l)}
            <rect
              x={g.x + i * (BOX + 1) + 0.75}
              y={y - BOX / 2}
              width={BOX - 1.5}
              height={BOX - 1.5}
              fill={l === 'D' ? 'var(--copper)' : 'var(--sheet)'}
              stroke={l === 'D' ? 'var(--copper)' : 'var(--ink)'}
              stroke-width="1.5"
            />
            <text
              x={g.x + i * (BOX + 1) + BOX / 2}
              y={y + 4.5}
              text-anchor="middle"
              class="fig letter"
              style:fill={l === 'D' ? 'var(--on-copper)' : 'var(--ink)'}>{l}</text
            >
          {/each}
          <text x={g.x + g.letters.length * (BOX + 1) + 4} y={y + 5} class="fig value">{g.text}</text>
        {/each}
      {/each}
    </svg>
  </div>
  <div class="found" data-testid="school-findings">
    <span class="label">Findings</span>
    {#each rules.wholes as w (w.set)}
      <span class="marks"
        ><b class={['box', !w.set && 'd']}>{letter(w)}</b>
        {#if many}<b>{w.wrong}</b><Mark kind="wrong" /><b>{w.toLookAt}</b><Mark kind="look" />
        {:else}
          {#each { length: w.wrong } as _, i (i)}<Mark kind="wrong" />{/each}
          {#each { length: w.toLookAt } as _, i (i)}<Mark kind="look" />{/each}
          {#if w.wrong + w.toLookAt === 0}<Mark kind="fits" />{/if}{/if}
      </span>
    {/each}
  </div>
  <AsTable
    heads={['', ...rules.wholes.map((w) => (w.set ? w.set : 'as it stands'))]}
    rows={[]}
    plain={[
      ...rows.map((r, i) => [r.label, ...rules.wholes.map((w) => w.figures[i].text)]),
      ['wrong', ...rules.wholes.map((w) => String(w.wrong))],
      ['to look at', ...rules.wholes.map((w) => String(w.toLookAt))],
    ]}
  />
{/if}

<style>
  .key,
  .found {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    margin: 5px 0 2px;
    font-size: 12.5px;
    align-items: center;
  }
  .marks {
    display: inline-flex;
    gap: 3px;
    align-items: center;
  }
  .found {
    gap: 4px 16px;
  }
  .box {
    display: inline-grid;
    place-items: center;
    width: 18px;
    height: 18px;
    border: 1.5px solid var(--ink);
    font-size: 12px;
  }
  .box.d {
    background: var(--copper);
    border-color: var(--copper);
    color: var(--on-copper);
  }
  .label {
    font-size: 12.5px;
    fill: var(--ink);
    min-width: 76px;
  }
  .letter {
    font-size: 12.5px;
    font-weight: 700;
  }
  .value {
    font-size: 13.5px;
    fill: var(--ink);
  }
</style>
