<script lang="ts">
  import Drawing from '../drawing/Drawing.svelte'
  import { ticks } from '../drawing/geometry'
  import AsTable from '../ui/AsTable.svelte'
  import { num } from '../ui/quantity'
  import { builds, letter } from './bench.svelte'

  /** What a year of each build costs by how often it is used, where the cheapest changes, and what ends it: age or cycles. */
  let { money }: { money: (value: number, decimals?: number) => string } = $props()
  const c = $derived(builds.comparison)
  const use = $derived(c?.use ?? null)
  let width = $state(900)
  const [H, LEFT, TOP, BOTTOM] = [300, 62, 14, 38]
  const RIGHT = 92
  const most = $derived(Math.max(1, ...(use?.lines ?? []).flatMap((l) => l.points.map((p) => p.perYear ?? 0))) * 1.08)
  const x = (cycles: number) => LEFT + (cycles / (use?.mostCycles ?? 1)) * (width - LEFT - RIGHT)
  const y = (money: number) => H - BOTTOM - (money / most) * (H - BOTTOM - TOP)
  /** In steps: another bank is bought at once. */
  const path = (points: { cycles: number; perYear: number | null }[]) =>
    points
      .filter((p) => p.perYear !== null)
      .map((p, i) => `${i === 0 ? 'M' : 'L'}${x(p.cycles)},${y(p.perYear!)}`)
      .join('')
  const DASH = ['', '7 4', '2 4', '10 3 2 3', '1 3']
  const nameOf = (key: string) => c?.builds.find((b) => b.key === key)?.name ?? ''
  const here = $derived(c?.cyclesPerYear ?? 0)
  const longest = $derived(Math.max(1, ...(use?.lines ?? []).map((l) => Math.min(l.calendarYears * 1.6, 40))))
  /** Letters at the right that would cover each other stand below one another. */
  const ends = $derived.by(() => {
    const list = (use?.lines ?? [])
      .map((l, i) => ({ i, at: y(l.points.at(-1)?.perYear ?? 0), known: l.points[0]?.perYear !== null }))
      .filter((e) => e.known)
      .sort((a, b) => a.at - b.at)
    let next = TOP
    for (const e of list) {
      e.at = Math.max(e.at, next + 8)
      next = e.at + 12
    }
    return list
  })
</script>

{#if use}
  <Drawing name="Cost of a year held over cycles a year" height={H} bind:width>
    {#each ticks(most, 5).filter((t) => t <= most) as t (t)}
      <line x1={LEFT} x2={width - RIGHT} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
      <text x={LEFT - 6} y={y(t) + 4} text-anchor="end" class="fig small">{money(t)}</text>
    {/each}
    {#each (width < 560 ? [0, 100, 200, 300] : [0, 12, 52, 100, 200, 300, 365]).filter((t) => t <= use.mostCycles) as t (t)}
      <line x1={x(t)} x2={x(t)} y1={H - BOTTOM} y2={H - BOTTOM + 4} stroke="var(--ink)" />
      <text x={x(t)} y={H - BOTTOM + 16} text-anchor="middle" class="fig small">{t}</text>
    {/each}
    <text x={(LEFT + width - RIGHT) / 2} y={H - 6} text-anchor="middle" class="small"
      >full cycles a year; 12 is once a month, 365 every day</text
    >
    <line x1={LEFT} x2={width - RIGHT} y1={H - BOTTOM} y2={H - BOTTOM} stroke="var(--ink)" />
    <line
      x1={x(here)}
      x2={x(here)}
      y1={TOP}
      y2={H - BOTTOM}
      stroke="var(--copper)"
      stroke-width="2"
      stroke-dasharray="6 4"
    />
    {#each use.lines as l, i (l.key)}
      <path
        d={path(l.points)}
        fill="none"
        stroke={i === 0 ? 'var(--copper)' : 'var(--ink)'}
        stroke-width={i === 0 ? 3 : 1.6}
        stroke-dasharray={DASH[i]}
      />
    {/each}
    {#each ends as e (e.i)}
      <text x={width - RIGHT + 8} y={e.at + 4} class="fig key">{letter(e.i)}</text>
    {/each}
    {#each use.crossings as k (k.cycles)}
      <g data-crossing={k.cycles}>
        <line x1={x(k.cycles)} x2={x(k.cycles)} y1={TOP} y2={H - BOTTOM} stroke="var(--ink)" />
        <text x={x(k.cycles) + 4} y={TOP + 11} class="fig small">{num(k.cycles)}</text>
      </g>
    {/each}
  </Drawing>
  <p class="note">
    Copper, dashed: {num(here)} cycles a year, what counts now{builds.tryCycles === null ? '' : ', only tried'}. A step
    up is a bank that must be bought again within the {num(c!.years)} years.
  </p>
  <p>
    <button type="button" class="link-copper text-[12.5px]" onclick={() => builds.putChemistries()}
      >put the cheapest of each chemistry beside the present one</button
    >
  </p>
  <section aria-label="Years by calendar and by cycles">
    <h3>Years one bank serves: by age, and by cycles at {num(here)} a year</h3>
    <div class="years" data-testid="years">
      {#each use.lines as l, i (l.key)}
        {@const cy = l.yearsByCycles ?? Infinity}
        <b class="fig">{letter(i)}</b>
        <span class="name">{nameOf(l.key)}</span>
        <span class="bars">
          <span
            class={['age', l.calendarYears <= cy && 'ends']}
            style:width="{Math.min(1, l.calendarYears / longest) * 100}%"
          ></span>
          <span class={['cycles', cy < l.calendarYears && 'ends']} style:width="{Math.min(1, cy / longest) * 100}%"
          ></span>
        </span>
        <span class="note"
          >{num(l.calendarYears)} by age, {Number.isFinite(cy)
            ? cy > 100
              ? 'over 100'
              : num(cy, cy < 20 ? 1 : 0)
            : 'no end'} by cycles; alike at {num(l.evenAt)} a year</span
        >
      {/each}
    </div>
    <p class="note">Solid ends it; of what is beyond the other years one pays for and never gets.</p>
  </section>
  <AsTable
    heads={['cycles a year', ...use.lines.map((l, i) => `${letter(i)} a year`)]}
    rows={[]}
    plain={[0, 20, 60, 100, 200, 300, 400].map((n) => [
      num(n),
      ...use.lines.map((l) => {
        const p = l.points.find((q) => q.cycles === n)
        return p?.perYear == null ? 'not known' : money(p.perYear)
      }),
    ])}
  />
{:else}<p class="note">Builds appear here once they are worked out.</p>{/if}

<style>
  h3 {
    font-weight: 700;
    font-size: 13.5px;
    margin-top: 8px;
  }
  .small {
    font-size: 11.5px;
    fill: var(--ink-2);
  }
  .key {
    font-size: 14px;
    font-weight: 700;
  }
  .years {
    display: grid;
    grid-template-columns: max-content minmax(100px, max-content) minmax(80px, 1fr) minmax(0, max-content);
    gap: 5px 10px;
    align-items: center;
    font-size: 12.5px;
    margin: 4px 0;
  }
  .bars {
    display: flex;
    flex-direction: column;
    gap: 2px;
  }
  .bars span {
    height: 7px;
    border: 1px solid var(--ink);
  }
  .ends {
    background: var(--ink);
  }
  @media (max-width: 939px) {
    .years {
      grid-template-columns: max-content minmax(0, 1fr);
    }
    .years .bars,
    .years .note {
      grid-column: 2;
    }
  }
</style>
