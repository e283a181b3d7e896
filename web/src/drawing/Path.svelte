<script lang="ts">
  import type { YearInstant } from '../api/client'
  import { session } from '../app/session.svelte'
  import { stations } from '../stations'
  import Mark from '../ui/Mark.svelte'
  import { num, say } from '../ui/quantity'
  import Copper from './Copper.svelte'
  import { circuit, live, liveAt } from './live'
  import PathBank from './PathBank.svelte'
  import PathLoads from './PathLoads.svelte'
  import { plan as planOf } from './pathPlan'
  import PathSources from './PathSources.svelte'

  /**
   * The whole circuit to scale, and the way to its stations. On a phone: the list of stations. At an instant of its year it shows what
   * flows then, and no station is chosen.
   */
  interface Props {
    folded: boolean
    short: boolean
    at?: YearInstant | null
    /** Which instant it is. */
    when?: string
  }
  let { folded, short, at = null, when = '' }: Props = $props()
  let width = $state(1280)
  let listed = $state(false)
  const FUNNEL = $derived(at ? 0 : 18)

  const e = $derived(session.result)
  const phone = $derived(width < 940)
  const height = $derived(folded ? 46 : short ? 120 : 168)
  const plan = $derived(planOf(e, width, height))
  const chosen = $derived(plan.columns[session.station])
  const run = $derived(e?.mainRun ?? null)
  const share = $derived(run?.carries.ampacityA ? Math.abs(at ? at.bankA : run.designA) / run.carries.ampacityA : 0)
  // Never on the frame of its station, whose edges are near the post and the bus.
  const fuseX = $derived(
    Math.max(
      plan.columns.cables.x + 20,
      Math.min(plan.bus - 104, plan.post + (run?.fuse.distanceM ?? 0.15) * plan.pxPerM),
    ),
  )
  const bus = $derived(plan.bus)
  const half = $derived((plan.thick * plan.conductors) / 2)
  const inverter = $derived(e?.inverter ?? null)
  const end = $derived(inverter ? plan.inverterX : bus)
  const name = (id: string) => stations.find((s) => s.id === id)!
  const href = (id: string) => `#/d/${session.id}/${id}`

  const faults = $derived(
    (at
      ? []
      : [
          { id: 'bank' as const, x: plan.post - 10, y: plan.yPlus + half + 18 },
          { id: 'cables' as const, x: fuseX + 22, y: plan.yPlus + half + 18 },
          {
            id: 'voltage' as const,
            x: plan.columns.voltage.x + plan.columns.voltage.width / 2 + 40,
            y: plan.yPlus + half + 4,
          },
          { id: 'inverter' as const, x: plan.inverterX + 5, y: plan.yPlus - half },
        ]
    )
      .map((f) => ({ ...f, mark: session.mark(f.id) }))
      .filter((f) => f.mark === 'wrong' || f.mark === 'look'),
  )

  /** The scales, in as many words as the column of the cables has room for. */
  const scale = $derived.by(() => {
    const mark = say(plan.ruler, 'm', session.units)
    const room = (plan.columns.cables.width - 24) / 6.2
    return (
      [
        `${plan.pxPerMm} px a mm of copper, ${plan.pxPerV} px a volt between the poles, a mark every ${mark}`,
        `${plan.pxPerMm} px a mm of copper, a mark every ${mark}`,
        `${plan.pxPerMm} px a mm, marks ${mark}`,
      ].find((words) => words.length <= room) ?? `marks ${mark}`
    )
  })

  function tick(i: number) {
    return plan.post + i * plan.ruler * plan.pxPerM
  }
  const marks = $derived(
    Array.from({ length: Math.floor((run?.laid.lengthM ?? 2) / plan.ruler + 1e-6) + 1 }, (_, i) => i),
  )
</script>

{#snippet station(id: (typeof circuit)[number])}
  {@const s = name(id)}
  {@const line = at ? liveAt(id, e, at) : live(id, e)}
  {@const mark = session.mark(id)}
  <span class="row">
    {#if mark === 'wrong' || mark === 'look'}<Mark kind={mark} />{/if}
    <b>{s.name}</b>
    <span class="caption fig number">{s.number}</span>
    {#if mark === 'fits'}<span class="caption fits"><Mark kind="fits" size={8} /> fits</span>{/if}
  </span>
  <span class="live">{line.before} <span class="fig">{line.figure}</span> {line.after}</span>
{/snippet}

<div bind:clientWidth={width} class="path">
  {#if phone}
    <nav aria-label="Stations" class="list">
      {#each stations.filter((s) => listed || s.id === session.station) as s (s.id)}
        <div class="flex">
          <a
            href={href(s.id)}
            class="phone-row"
            aria-current={s.id === session.station ? 'page' : undefined}
            onclick={() => (listed = false)}
          >
            {@render station(s.id)}
          </a>
          {#if s.id === session.station}
            <button type="button" class="others" aria-expanded={listed} onclick={() => (listed = !listed)}
              >{listed ? 'close' : 'all stations'}</button
            >
          {/if}
        </div>
      {/each}
    </nav>
  {:else}
    <svg {width} height={height + FUNNEL} viewBox="0 0 {width} {height + FUNNEL}" aria-hidden="true" class="bare block">
      {#if !at}
        <path
          d="M{chosen.x} {height} V1 H{chosen.x + chosen.width} V{height} L{width - 16} {height + FUNNEL} H16 Z"
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="1.5"
        />
        <path d="M17 {height + FUNNEL} H{width - 17}" stroke="var(--sheet)" stroke-width="3" />
      {/if}
      {#each circuit as id, i (id)}
        {#if i > 0 && (at || (id !== session.station && circuit[i - 1] !== session.station))}
          <line x1={plan.columns[id].x} y1="6" x2={plan.columns[id].x} y2="40" stroke="var(--hair)" />
        {/if}
      {/each}
      {#if !folded}
        {#if run || e?.bank}
          <Copper
            x1={plan.post}
            y1={plan.yPlus}
            x2={end}
            y2={plan.yPlus}
            thick={plan.thick}
            conductors={plan.conductors}
            {share}
          />
          <Copper
            x1={plan.post}
            y1={plan.yMinus}
            x2={end}
            y2={plan.yMinus}
            thick={plan.thick}
            conductors={plan.conductors}
            {share}
          />
        {:else}
          <path
            d="M{plan.post} {plan.yPlus} H{plan.inverterX} M{plan.post} {plan.yMinus} H{plan.inverterX}"
            stroke="var(--ink-3)"
            stroke-dasharray="4 4"
          />
        {/if}
        {#if e?.bank}
          <PathBank {e} {plan} {at} />
        {:else}
          <rect
            x={plan.columns.bank.x + 14}
            y={plan.yPlus - 4}
            width={plan.columns.bank.width - 34}
            height={plan.yMinus - plan.yPlus + 8}
            fill="none"
            stroke="var(--ink-3)"
            stroke-dasharray="4 3"
          />
          <text
            x={plan.columns.bank.x + plan.columns.bank.width / 2 - 4}
            y={(plan.yPlus + plan.yMinus) / 2 + 4}
            text-anchor="middle">choose a unit</text
          >
        {/if}
        {#if run}
          <!-- Main fuse, at its distance from the post. -->
          {#if !run.fuse.ratingA}
            <text x={fuseX} y={plan.yPlus - half - 5} text-anchor="middle">no fuse</text>
          {:else}
            <rect x={fuseX - 11} y={plan.yPlus - 10} width="22" height="20" fill="var(--sheet)" stroke="var(--ink)" />
            <line
              x1={fuseX - 11}
              y1={plan.yPlus}
              x2={fuseX + 11}
              y2={plan.yPlus}
              stroke="var(--ink)"
              stroke-width="2"
            />
            <text x={fuseX} y={plan.yPlus + 23} text-anchor="middle" class="fig" data-testid="path-fuse"
              >{say(run.fuse.ratingA, 'rating')}</text
            >
          {/if}
          {@const switchX = Math.max(fuseX + 58, plan.post + 92)}
          {#if switchX < bus - 30}
            <rect x={switchX - 11} y={plan.yPlus - 10} width="22" height="20" fill="var(--sheet)" stroke="var(--ink)" />
            <path
              d="M{switchX - 6} {plan.yPlus + 4} L{switchX + 6} {plan.yPlus - 4}"
              stroke="var(--ink)"
              stroke-width="1.6"
            />
            <circle cx={switchX - 6} cy={plan.yPlus + 4} r="1.8" fill="var(--ink)" /><circle
              cx={switchX + 6}
              cy={plan.yPlus - 4}
              r="1.8"
              fill="var(--ink)"
            />
            <text x={switchX} y={plan.yPlus + 23} text-anchor="middle">switch</text>
            <rect x={switchX - 40} y={plan.yMinus - 9} width="26" height="18" fill="var(--sheet)" stroke="var(--ink)" />
            <path
              d="M{switchX - 36} {plan.yMinus - 4} h18 m-18 4 h18 m-18 4 h18"
              stroke="var(--ink)"
              stroke-width="0.8"
            />
            <!-- At 12 V there is no room for two words between the poles. -->
            <text
              x={switchX - 27}
              y={plan.yMinus - plan.yPlus < 62 ? plan.yMinus + 22 : plan.yMinus - 13}
              text-anchor="middle">shunt</text
            >
          {/if}
          {#if e}<PathSources {e} {plan} {short} {at} />{/if}
          {@const lane = plan.lanes[0]}
          {#each [{ y: plan.yPlus, t: '+' }, { y: plan.yMinus, t: '−' }] as pole (pole.t)}
            {@const top = pole.t === '+' && lane ? Math.min(pole.y - 11, lane.y - lane.thick / 2 - 3) : pole.y - 11}
            <rect x={bus - 11} y={top} width="22" height={pole.y + 11 - top} fill="var(--sheet)" stroke="var(--ink)" />
            <text x={bus} y={pole.y + 5} text-anchor="middle" style:font-size="15px" style:font-weight="700"
              >{pole.t}</text
            >
          {/each}
        {/if}
        {#if e?.voltage && (run || e.bank)}
          {@const x = plan.columns.voltage.x + plan.columns.voltage.width / 2}
          {@const mid = (plan.yPlus + plan.yMinus) / 2}
          {@const [a, b] = [plan.yPlus + half + 1, plan.yMinus - half - 1]}
          <path
            d="M{x - 10} {a} V{b} M{x - 13} {a + 5} L{x - 10} {a} L{x - 7} {a + 5} M{x - 13} {b - 5} L{x - 10} {b} L{x -
              7} {b - 5}"
            stroke="var(--ink)"
            fill="none"
          />
          <text x={x - 18} y={mid + 4} text-anchor="end" class="fig" style:font-size="13px"
            >{run?.cable.areaMm2
              ? `${run.cable.conductors > 1 ? `${run.cable.conductors} × ` : ''}${run.cable.size}`
              : ''}</text
          >
          <text {x} y={mid + 7} class="fig" style:font-size={short ? '16px' : '22px'} data-testid="path-volts"
            >{at ? num(at.volts, 2) : e.voltage.systemV}<tspan dx="3" style:font-size="14px">V</tspan></text
          >
          {#if !at && !short && e.voltage.systemV >= 24}<text x={x + 46} y={mid + 6} class="faint"
              >really {num(e.voltage.nominalV, 1)}</text
            >{/if}
        {/if}
        {#if inverter}
          <rect
            x={plan.inverterX}
            y={plan.yPlus - half - 5}
            width={plan.columns.inverter.width - 20}
            height={plan.yMinus - plan.yPlus + 2 * half + 10}
            fill="var(--sheet)"
            stroke="var(--ink)"
          />
          {@const x = plan.inverterX + (plan.columns.inverter.width - 20) / 2}
          {@const y = (plan.yPlus + plan.yMinus) / 2}
          <text
            {x}
            y={inverter.item ? y - 1 : y + 4}
            text-anchor="middle"
            class="fig"
            style:font-size={short ? '15px' : '20px'}
          >
            {at
              ? num(at.inverterW)
              : inverter.item
                ? num(inverter.item.continuousW * inverter.stack)
                : 'none fits'}{#if at || inverter.item}<tspan dx="2" style:font-size="13px">W</tspan>{/if}
          </text>
          {#if at && !short}
            <text {x} y={y + 16} text-anchor="middle"
              >{at.passed
                ? 'passes AC through'
                : !at.inverterOn
                  ? 'off'
                  : inverter.item
                    ? `of ${num(inverter.item.continuousW * inverter.stack)}`
                    : 'on'}</text
            >
          {:else if inverter.item && !short && inverter.overload[0]}
            <text {x} y={y + 16} text-anchor="middle"
              >{num(inverter.overload[0].watts)} for {say(inverter.overload[0].seconds, 's')}</text
            >
          {/if}
        {:else}
          <text x={plan.columns.inverter.x + 50} y={(plan.yPlus + plan.yMinus) / 2 + 4} text-anchor="middle">none</text>
        {/if}
        <!-- Findings stand where the fault is. -->
        {#each faults as f (f.id)}
          <g transform="translate({f.x} {f.y})">
            <rect width="9" height="9" fill={f.mark === 'wrong' ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" />
            {#if f.mark === 'look'}<path
                d="M0 6 L6 0 M0 9 L9 0 M3 9 L9 3"
                stroke="var(--ink)"
                stroke-width="1.2"
              />{/if}
          </g>
        {/each}
        {#if e}<PathLoads {e} {plan} {bus} {at} />{/if}
        {#if !at && run?.laid.lengthM && (run || e?.bank)}
          {@const y = plan.yMinus + half + 7}
          <path
            d={marks.map((i) => `M${tick(i)} ${y} v4`).join(' ') + ` M${plan.post} ${y + 2} H${tick(marks.length - 1)}`}
            stroke="var(--ink-3)"
          />
        {/if}
        {#if run}
          <text x={plan.post + 14} y={height - 4} class="scale" data-testid="path-when">{at ? when : scale}</text>
        {/if}
      {/if}
    </svg>
    <nav aria-label="Stations">
      {#each circuit as id (id)}
        {@const c = plan.columns[id]}
        <a
          href={href(id)}
          class="column"
          style:left="{c.x}px"
          style:width="{c.width}px"
          style:height="{height}px"
          aria-current={!at && id === session.station ? 'page' : undefined}
        >
          {@render station(id)}
        </a>
      {/each}
    </nav>
  {/if}
</div>

<style>
  .path {
    position: relative;
    min-width: 0;
  }
  .column {
    position: absolute;
    top: 0;
    padding: 5px 10px;
    display: block;
    overflow: hidden;
  }
  .row {
    display: flex;
    align-items: baseline;
    gap: 6px;
    font-size: 13.5px;
  }
  .row b {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 1149px) {
    .column .fits {
      display: none;
    }
  }
  .fits {
    margin-left: auto;
    white-space: nowrap;
  }
  .number {
    margin-left: 1px;
  }
  .live {
    display: block;
    font-size: 12px;
    color: var(--ink-2);
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .live .fig {
    color: var(--ink);
    font-size: 13px;
  }
  .scale {
    font-size: 11px;
    fill: var(--ink-3);
  }
  .faint {
    fill: var(--ink-2);
  }
  .list {
    display: flex;
    flex-direction: column;
    font-size: 14px;
    border-bottom: 1px solid var(--hair);
  }
  .phone-row {
    flex: 1;
    min-width: 0;
    min-height: 48px;
    padding: 5px 12px;
    border-top: 1px solid var(--hair);
    background: var(--page);
  }
  .phone-row[aria-current] {
    background: var(--sheet);
  }
  .others {
    min-width: 96px;
    min-height: 48px;
    border-top: 1px solid var(--hair);
    border-left: 1px solid var(--hair);
    color: var(--copper-text);
    font-weight: 650;
    cursor: pointer;
  }
</style>
