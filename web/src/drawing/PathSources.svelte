<script lang="ts">
  import type { BankEvaluation, YearInstant } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num, say } from '../ui/quantity'
  import { coreOf, cut } from './geometry'
  import { MOST_SOURCES, sourceRows } from './pathPlan'
  import type { PathPlan } from './pathPlan'
  import SourceSign from './SourceSign.svelte'

  /** The sources on the path: each as what it is, its device with its amperes, its line over the bank to the bus with its own fuse. */
  interface Props {
    e: BankEvaluation
    plan: PathPlan
    short: boolean
    at?: YearInstant | null
  }
  let { e, plan, short, at = null }: Props = $props()

  /** What it gives at the instant [A]; null: no instant is looked at. */
  const now = (id: string) => (at ? (at.sources.find((s) => s.id === id)?.amps ?? 0) : null)

  const all = $derived(e.charging?.sources ?? [])
  const shown = $derived(all.slice(0, MOST_SOURCES))
  const rest = $derived(all.slice(MOST_SOURCES))
  const left = $derived(plan.columns.charging.x + 10)
  const box = $derived({ x: left + 42, width: Math.min(52, plan.columns.charging.width - 90) })
  const rows = $derived(sourceRows(Math.min(all.length, MOST_SOURCES + 1), 46, plan.bottom))
  const worded = $derived(!short && rows.pitch >= 26)
  const circuits = $derived(shown.map((s) => e.circuits.find((c) => c.id === `source-${s.id}`)))
  const share = (i: number) => {
    const run = circuits[i]?.run
    return run?.carries.ampacityA ? (now(shown[i].id) ?? run.designA) / run.carries.ampacityA : 0
  }
  const found = (at: number) =>
    session.evaluation!.findings.filter((f) => f.place.startsWith(`${session.base}/sources/${at}`) && f.bank === e.id)
  const mark = (at: number) => {
    const grades = found(at).map((f) => f.grade)
    return grades.some((g) => g === 'danger' || g === 'fault') ? 'wrong' : grades.includes('caution') ? 'look' : null
  }
  const detail = (s: (typeof all)[number]) =>
    s.arrayW ? say(s.arrayW, 'W') : s.kind === 'dc-dc' ? 'DC–DC' : s.kind === 'alternator' ? 'straight' : 'charger'
</script>

{#each shown as s, i (s.id)}
  {@const y = rows.first + i * rows.pitch}
  {@const middle = worded ? y + 7 : y}
  {@const lane = plan.lanes[i]}
  {@const fused = circuits[i]?.run.fuse.ratingA}
  {@const path = `M${box.x + box.width} ${middle} H${lane.riser} V${lane.y} H${plan.bus}`}
  {#if s.builtIn}
    <!-- It charges through the inverter's own run. -->
  {:else if circuits[i]}
    <path d={path} fill="none" stroke="var(--copper-body)" stroke-width={lane.thick} />
    <path
      d={path}
      fill="none"
      stroke={share(i) > 1.000001 ? 'var(--ink)' : 'var(--copper)'}
      stroke-width={Math.max(1, coreOf(lane.thick, share(i)))}
    />
  {:else}
    <path d={path} fill="none" stroke="var(--ink-3)" stroke-dasharray="4 3" />
  {/if}
  {#if fused}
    <rect
      x={plan.bus - 33}
      y={lane.y - lane.thick / 2 - 1}
      width="14"
      height={lane.thick + 2}
      fill="var(--sheet)"
      stroke="var(--ink)"
    />
    <path d="M{plan.bus - 33} {lane.y} h14" stroke="var(--ink)" />
  {/if}
  {#if worded}
    <text x={left} y={y - 7}
      >{cut(s.name || 'unnamed', 12)}<tspan dx="5" class="detail">{s.builtIn ? '' : detail(s)}</tspan></text
    >
  {/if}
  <SourceSign kind={s.kind} x={left} y={middle} />
  <rect x={box.x} y={middle - 8} width={box.width} height="16" fill="var(--sheet)" stroke="var(--ink)" />
  <path d="M{left + 33} {middle} H{box.x}" stroke="var(--ink)" />
  <text x={box.x + box.width / 2} y={middle + 4} text-anchor="middle" class="fig"
    >{at ? (now(s.id)! > 0 ? say(now(s.id)!, 'A') : '0 A') : s.givesA === null ? '? A' : `${num(s.givesA)} A`}</text
  >
  {#if !at && mark(i)}
    <g transform="translate({box.x + box.width - 5} {middle - 13})">
      <rect width="9" height="9" fill={mark(i) === 'wrong' ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" />
      {#if mark(i) === 'look'}<path d="M0 6 L6 0 M0 9 L9 0 M3 9 L9 3" stroke="var(--ink)" stroke-width="1.2" />{/if}
    </g>
  {/if}
{/each}
{#if rest.length > 0}
  <text x={left} y={rows.first + MOST_SOURCES * rows.pitch + 4} class="detail"
    >{rest.length} more{at ? '' : `, ${num(rest.reduce((sum, s) => sum + (s.givesA ?? 0), 0))} A`}</text
  >
{/if}
{#if all.length === 0}
  <text x={left} y={(plan.top + plan.bottom) / 2 + 4} class="detail">add a source</text>
{/if}

<style>
  .detail {
    fill: var(--ink-2);
  }
</style>
