<script lang="ts">
  import type { BankEvaluation, YearInstant } from '../api/client'
  import { num } from '../ui/quantity'
  import { cut } from './geometry'
  import type { PathPlan } from './pathPlan'

  /** The loads on the path: the five largest with their watts as bars, starts as thin lines. */
  interface Props {
    e: BankEvaluation
    plan: PathPlan
    bus: number
    at?: YearInstant | null
  }
  let { e, plan, bus, at = null }: Props = $props()

  const MOST = 5
  const sorted = $derived([...(e.loads?.rows ?? [])].sort((a, b) => b.runningW - a.runningW))
  const rows = $derived(sorted.slice(0, sorted.length === MOST + 1 ? MOST + 1 : MOST))
  const rest = $derived(sorted.slice(rows.length))
  const names = $derived(plan.columns.loads.x + 34)
  const bars = $derived(names + 152)
  const most = $derived(Math.max(1, ...rows.map((r) => Math.max(r.runningW, r.surgeW))))
  const room = $derived(Math.max(0, plan.columns.loads.x + plan.columns.loads.width - 44 - bars))
  /** At an instant: what it draws, and what it is not given. */
  const now = (id: string) => at?.loads.find((l) => l.id === id)
  const guests = $derived(at?.loads.filter((l) => l.id === '' && l.watts > 0) ?? [])
  const lines = $derived(rows.length + (rest.length > 0 || guests.length > 0 ? 1 : 0))
  const pitch = $derived(Math.min(18, (plan.bottom - plan.top + 12) / Math.max(1, lines)))
  const first = $derived((plan.top + plan.bottom) / 2 - ((lines - 1) * pitch) / 2)
  const out = $derived(plan.columns.inverter.x + plan.columns.inverter.width - 12)
  const direct = $derived(rows.map((r, i) => ({ ...r, i })).filter((r) => r.kind !== 'ac'))
  const converters = $derived(direct.filter((r) => r.kind === 'converter'))
  const hot = $derived(plan.columns.loads.x + 12)
</script>

{#each rows as row, i (row.id)}
  {@const y = first + i * pitch}
  {@const live = now(row.id)}
  {@const watts = at ? (live?.watts ?? 0) : row.runningW}
  {@const off = at !== null && (watts === 0 || live?.dark === true)}
  {@const copper = off ? 'var(--copper-body)' : 'var(--copper)'}
  {#if row.kind === 'ac'}
    <line x1={out} y1={y} x2={names - 6} y2={y} stroke={copper} stroke-width="1.5" />
  {:else}
    <path d="M{hot} {plan.top - 1} V{y} H{names - 6}" fill="none" stroke={copper} stroke-width="1.5" />
  {/if}
  <text x={names} y={y + 4} class={[off && 'faint']}>{cut(row.name || 'unnamed', 16)}</text>
  <text x={bars - 8} y={y + 4} text-anchor="end" class={['fig', off && 'faint']} style:font-size="12.5px"
    >{#if live?.dark}dark{:else if at && watts === 0}off{:else}{num(watts)}<tspan dx="1.5" style:font-size="11px"
        >W</tspan
      >{/if}</text
  >
  <rect
    x={bars}
    y={y - 3.5}
    width={Math.max(0.5, ((at && watts === 0 ? row.runningW : watts) / most) * room)}
    height="7"
    fill={off && !live?.dark ? 'none' : 'var(--ink)'}
    stroke={off ? 'var(--ink-3)' : 'none'}
  />
  {#if !at && row.surgeW > row.runningW}
    {@const end = bars + (row.surgeW / most) * room}
    <path d="M{bars} {y} H{end} M{end} {y - 4} V{y + 4}" stroke="var(--ink)" />
    {#if row.surgeW > most * 0.4 && pitch >= 15}
      <text x={end} y={y - 6} text-anchor="end" class="fig" style:font-size="11px">{num(row.surgeW)} W start</text>
    {/if}
  {/if}
{/each}
{#if rest.length > 0}
  <text x={names} y={first + rows.length * pitch + 4} class="faint"
    >{rest.length} more{at
      ? `, ${rest.filter((r) => (now(r.id)?.watts ?? 0) > 0).length} on`
      : `, ${num(rest.reduce((sum, r) => sum + r.runningW, 0))} W`}{guests.length > 0 ? ', and a guest' : ''}</text
  >
{:else if guests.length > 0}
  <text x={names} y={first + rows.length * pitch + 4}>a guest, {num(guests[0].watts)} W</text>
{/if}
{#if direct.length > 0}
  <path d="M{bus} {plan.yPlus} V{plan.top - 1} H{hot}" fill="none" stroke="var(--copper)" stroke-width="1.5" />
  {#if converters.length > 0}
    <rect x={bus + 26} y={plan.top - 9} width="70" height="16" fill="var(--sheet)" stroke="var(--ink)" />
    <text x={bus + 61} y={plan.top + 3} text-anchor="middle">converter</text>
  {/if}
{/if}
{#if rows.length === 0}
  <text x={names} y={(plan.top + plan.bottom) / 2 + 4}>add the first load</text>
{/if}

<style>
  .faint {
    fill: var(--ink-2);
  }
</style>
