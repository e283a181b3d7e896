<script lang="ts">
  import type { BankEvaluation, YearInstant } from '../api/client'
  import { num, stringName } from '../ui/quantity'
  import Copper from './Copper.svelte'
  import { diameterMm } from './geometry'
  import type { PathPlan } from './pathPlan'

  /** The bank on the path: strings between the rails, and where the leads leave; at an instant with what each gives and holds. */
  let { e, plan, at = null }: { e: BankEvaluation; plan: PathPlan; at?: YearInstant | null } = $props()

  const bank = $derived(e.bank!)
  const network = $derived(e.network)
  const single = $derived(bank.layout.parallel > 12)
  const shown = $derived(single ? 1 : bank.layout.parallel)
  const room = $derived({ from: plan.columns.bank.x + 14, to: plan.columns.bank.x + plan.columns.bank.width - 22 })
  const pitch = $derived((room.to - room.from) / shown)
  const box = $derived(single ? 110 : Math.max(1, Math.min(38, pitch - 3)))
  // String A stands nearest the positive take-off, at the right.
  const strings = $derived(
    Array.from({ length: shown }, (_, i) => ({
      name: stringName(i + 1),
      number: i + 1,
      x: room.to - (i + 0.5) * pitch,
    })),
  )
  const inner = $derived({
    top: plan.yPlus + (plan.thick * plan.conductors) / 2,
    bottom: plan.yMinus - (plan.thick * plan.conductors) / 2,
  })
  const cells = $derived(Math.min(bank.layout.series, single ? 1 : 8))
  const each = $derived((inner.bottom - inner.top) / cells)
  const link = $derived(network ? Math.max(2, diameterMm(network.copper.link.areaMm2) * plan.pxPerMm) : 2)
  const far = $derived(strings.at(-1)!.x)
  const near = $derived(strings[0].x)
  const style = $derived(network?.wiring.style ?? 'same-end')
  const share = $derived(
    e.mainRun?.carries.ampacityA ? Math.abs(at ? at.bankA : e.mainRun.designA) / e.mainRun.carries.ampacityA : 0,
  )
  /** Level of charge of a string at the instant, drawn in each of its units. */
  const levelOf = (number: number) => (single ? at!.soc : (at!.strings[number - 1]?.soc ?? 0))
  const isOut = (number: number) => at !== null && !single && (at.strings[number - 1]?.isOut ?? false)
  const linkShare = $derived(
    !at && network && network.copper.link.ampacityA > 0
      ? Math.max(0, ...network.links.positiveA, ...network.links.negativeA) / network.copper.link.ampacityA
      : 0,
  )
</script>

{#if style === 'bus-bars'}
  {#each [plan.yPlus, plan.yMinus] as y (y)}
    <rect x={far - 8} y={y - 3} width={near - far + 16} height="6" fill="var(--sheet)" stroke="var(--ink)" />
  {/each}
{:else if !single && shown > 1}
  <Copper x1={far} y1={plan.yPlus} x2={near} y2={plan.yPlus} thick={Math.min(link, plan.thick)} share={linkShare} />
  <Copper x1={far} y1={plan.yMinus} x2={near} y2={plan.yMinus} thick={Math.min(link, plan.thick)} share={linkShare} />
{/if}
<Copper
  x1={near}
  y1={plan.yPlus}
  x2={plan.post}
  y2={plan.yPlus}
  thick={plan.thick}
  conductors={plan.conductors}
  {share}
/>
{#if style === 'diagonal' && shown > 1}
  {@const low = plan.yMinus + plan.thick / 2 + 7}
  <path
    d="M{far} {plan.yMinus} V{low} H{plan.post - 2} V{plan.yMinus}"
    fill="none"
    stroke="var(--copper)"
    stroke-width="3.5"
  />
{:else}
  <Copper
    x1={near}
    y1={plan.yMinus}
    x2={plan.post}
    y2={plan.yMinus}
    thick={plan.thick}
    conductors={plan.conductors}
    {share}
  />
{/if}
{#each strings as s (s.number)}
  {#each Array.from({ length: cells }, (_, c) => c) as c (c)}
    <rect
      x={s.x - box / 2}
      y={inner.top + c * each + 1.5}
      width={box}
      height={each - 3}
      fill="var(--sheet)"
      stroke="var(--ink)"
      stroke-width={!at && network && network.strings.worst === s.number && shown > 1 && !single ? 1.8 : 1}
      stroke-dasharray={isOut(s.number) ? '3 3' : undefined}
      data-out={isOut(s.number) || undefined}
    />
    {#if at}
      {@const level = (each - 4) * levelOf(s.number)}
      <rect
        x={s.x - box / 2 + 0.5}
        y={inner.top + (c + 1) * each - 2 - level}
        width={Math.max(0, box - 1)}
        height={level}
        fill="var(--hair)"
        opacity={isOut(s.number) ? 0.4 : 1}
      />
    {/if}
    {#if at && (single || (shown <= 6 && box >= 20))}
      {@const amps = single ? at.bankA : (at.strings[s.number - 1]?.amps ?? 0)}
      {#if c === 0 && each >= 15}
        <text x={s.x} y={inner.top + each / 2 + 4} text-anchor="middle" class="fig" data-amps={s.number}
          >{isOut(s.number) ? 'open' : num(amps, Math.abs(amps) < 100 ? 1 : 0)}</text
        >
      {:else if c === cells - 1 && cells > 1 && each >= 15}
        <text x={s.x} y={inner.top + (c + 0.5) * each + 4} text-anchor="middle" class="fig">{single ? '' : s.name}</text
        >
      {/if}
    {:else if single}
      <text x={s.x} y={inner.top + each / 2 + 4} text-anchor="middle" class="fig"
        >{bank.layout.series}S{bank.layout.parallel}P</text
      >
    {:else if shown <= 6 && each >= 15 && box >= 20}
      <text x={s.x} y={inner.top + (c + 0.5) * each + 4} text-anchor="middle" class="fig"
        >{s.name}{cells > 1 ? c + 1 : ''}</text
      >
    {/if}
  {/each}
{/each}
