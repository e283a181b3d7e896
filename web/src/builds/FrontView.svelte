<script lang="ts">
  import type { Build } from '../api/client'
  import { session } from '../app/session.svelte'
  import { ticks } from '../drawing/geometry'
  import Drawing from '../drawing/Drawing.svelte'
  import AsTable from '../ui/AsTable.svelte'
  import { num, say } from '../ui/quantity'
  import { builds, letter, PRESENT } from './bench.svelte'
  import { plans } from './plans.svelte'

  /** Every build that can be made as a point: cost against a merit one chooses, and the front that nothing beats. */
  let { money }: { money: (value: number, decimals?: number) => string } = $props()
  interface Merit {
    id: string
    name: string
    of: (b: Build) => number | null
    /** More is worse: the axis is turned round. */
    less?: boolean
    say: (v: number) => string
  }
  const merits: Merit[] = [
    { id: 'usable', name: 'usable energy', of: (b) => b.usableWh, say: (v) => say(v, 'Wh') },
    { id: 'ac', name: 'AC watts without end', of: (b) => b.continuousW, say: (v) => `${num(v)} W` },
    { id: 'kg', name: 'mass of all units', of: (b) => b.massKg, less: true, say: (v) => say(v, 'kg', session.units) },
    { id: 'connections', name: 'connections to make', of: (b) => b.bill.connections, less: true, say: (v) => num(v) },
    { id: 'kwh', name: 'cost of a delivered kWh', of: (b) => b.perDeliveredKwh, less: true, say: (v) => num(v, 2) },
    { id: 'year', name: 'cost of a year held', of: (b) => b.perYear, less: true, say: (v) => num(v) },
    { id: 'years', name: 'years it serves', of: (b) => b.lifeYears, say: (v) => num(v, 1) },
  ]
  let merit = $state('usable')
  let [inSpace, inStock] = $state([false, false])
  let connections = $state<number | null>(null)
  const m = $derived(merits.find((x) => x.id === merit)!)
  const present = $derived(builds.comparison?.builds[0] ?? null)
  const all = $derived.by(() => {
    const list = builds.list.filter((b) => b.fits)
    return present && !list.some((b) => b.key === present.key) ? [present, ...list] : list
  })
  const most = $derived(Math.max(1, ...all.map((b) => b.bill.connections)))
  const shown = $derived(
    all.filter(
      (b) =>
        b.key === present?.key ||
        ((!inSpace || b.layout?.fits !== false) &&
          (!inStock || b.inStock) &&
          (connections === null || b.bill.connections <= connections)),
    ),
  )
  const known = $derived(shown.filter((b) => b.bill.unknown.length === 0 && m.of(b) !== null))
  /** What has a fault is drawn where the design stands on it, and beats nothing. */
  const priced = $derived(known.filter((b) => b.fits))
  const unpriced = $derived(shown.filter((b) => b.bill.unknown.length > 0 && m.of(b) !== null))
  $effect(() => {
    plans.askFront(
      priced.map((b) => b.key),
      priced.map((b) => ({ cost: b.bill.total, merit: m.less ? -m.of(b)! : m.of(b)! })),
    )
  })
  const front = $derived.by(() => {
    const f = plans.front
    return f && f.of.length === priced.length && f.of.every((k, i) => k === priced[i].key) ? f.result : null
  })
  const best = $derived(front ? front.front.map((n) => priced[n - 1]) : [])
  const beats = (b: Build) => {
    const n = front?.dominatedBy[priced.indexOf(b)]
    return n ? priced[n - 1] : null
  }
  let width = $state(900)
  const [H, LEFT, TOP, BOTTOM] = [400, 74, 16, 40]
  const STRIP = $derived(unpriced.length > 0 ? 96 : 12)
  const right = $derived(width - STRIP)
  const costs = $derived(known.map((b) => b.bill.total))
  const values = $derived([...known, ...unpriced].map((b) => m.of(b)!))
  const highX = $derived(Math.max(1, ...costs) * 1.04)
  const lowX = $derived(Math.min(...costs, highX) * 0.9)
  const [lowY, highY] = $derived.by(() => {
    const [a, b] = [Math.min(...values), Math.max(...values)]
    const air = (b - a || b || 1) * 0.08
    return [a - air, b + air]
  })
  const x = (cost: number) => LEFT + ((cost - lowX) / (highX - lowX)) * (right - LEFT - 8)
  /** Up is always better. */
  const y = (v: number) => {
    const share = (v - lowY) / (highY - lowY)
    return m.less ? TOP + share * (H - TOP - BOTTOM) : H - BOTTOM - share * (H - TOP - BOTTOM)
  }
  const line = $derived(
    best.map((b, i) => `${i === 0 ? 'M' : 'H'}${x(b.bill.total)}${i === 0 ? ',' : 'V'}${y(m.of(b)!)}`).join(''),
  )
  /** Letters of those side by side, the present first. */
  const letters = $derived(new Map((builds.comparison?.builds ?? []).map((b, i) => [b.key, letter(i)] as const)))
  let pointed = $state<string | null>(null)
  const hand = $derived(shown.find((b) => b.key === pointed) ?? null)
  function press(b: Build) {
    pointed = b.key
    if (b.key === present?.key) return
    if (builds.keys.includes(b.key)) builds.put(builds.keys.filter((k) => k !== b.key))
    else if (!builds.full) builds.put([...builds.keys, b.key])
  }
  const count = $derived(best.length)
  /** The present build among the points. */
  const own = $derived(priced.find((b) => b.key === present?.key) ?? null)
  const mine = $derived(own ? beats(own) : null)
  $effect(() => {
    plans.says = !front
      ? priced.length === 0 && !builds.running
        ? 'No build of this stock can be made without a fault: there is no front'
        : null
      : `${count} of ${num(priced.length)} builds cannot be beaten for ${m.name} at their cost${
          mine
            ? `; the present one is beaten by ${mine.name}, ${money(mine.bill.total)}`
            : own
              ? ', the present one among them'
              : present && !present.fits
                ? '; the present one has a fault and takes no part'
                : present?.bill.unknown.length
                  ? '; what the present one costs is not known'
                  : ''
        }`
  })
</script>

{#if plans.away}<p class="note" role="status">{plans.away}</p>{/if}
{#if unpriced.length > 0}<p class="note" data-testid="unpriced">
    Of {num(unpriced.length)} a price is not known: they stand apart, and win nothing.
  </p>{/if}
<div class="controls">
  <label
    ><span class="caption">against cost</span><select
      class="select select-xs"
      bind:value={merit}
      data-path="/builds/merit"
    >
      {#each merits as x (x.id)}<option value={x.id}>{x.name}</option>{/each}
    </select></label
  >
  {#if session.bank!.space}<label class="tick"
      ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={inSpace} /> fits the space</label
    >{/if}

  <label class="tick"
    ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={inStock} data-testid="in-stock" /> in stock</label
  >
  <label class="slide"
    ><span class="caption">connections at most: {connections === null ? 'any' : connections}</span><input
      type="range"
      min="4"
      max={most}
      value={connections ?? most}
      data-testid="connections"
      oninput={(e) => (connections = Number(e.currentTarget.value) >= most ? null : Number(e.currentTarget.value))}
    /></label
  >
</div>
<Drawing name="All builds as points, {m.name} over cost" height={H} bind:width>
  {#each ticks(highX, 6).filter((t) => t >= lowX && t <= highX) as t (t)}
    <line x1={x(t)} x2={x(t)} y1={TOP} y2={H - BOTTOM} stroke="var(--grid)" />
    <text x={x(t)} y={H - BOTTOM + 15} text-anchor="middle" class="fig small">{num(t)}</text>
  {/each}
  {#each ticks(highY, 5).filter((t) => t >= lowY && t <= highY) as t (t)}
    <line x1={LEFT} x2={width - 8} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={LEFT - 6} y={y(t) + 4} text-anchor="end" class="fig small">{m.say(t)}</text>
  {/each}
  <text x={(LEFT + right) / 2} y={H - 6} text-anchor="middle" class="small">whole cost, with everything it needs</text>
  {#if unpriced.length > 0}
    <line x1={right} x2={right} y1={TOP} y2={H - BOTTOM} stroke="var(--ink-3)" stroke-dasharray="3 3" />
    <text x={(right + width) / 2} y={H - BOTTOM + 15} text-anchor="middle" class="small">not known</text>
  {/if}
  <path d={line} fill="none" stroke="var(--ink)" stroke-width="1.6" />
  {#each [...known, ...unpriced] as b (b.key)}
    {@const sure = b.bill.unknown.length === 0}
    {@const px = sure ? x(b.bill.total) : (right + width) / 2}
    {@const py = y(m.of(b)!)}
    {@const named = letters.get(b.key)}
    {@const top = best.includes(b)}
    <g
      role="button"
      tabindex="-1"
      data-stop
      data-point={b.key}
      data-front={top || undefined}
      aria-pressed={builds.keys.includes(b.key) || b.key === present?.key}
      aria-label="{b.name}, {sure ? money(b.bill.total) : 'price not known'}, {m.say(m.of(b)!)}{top
        ? ', not beaten'
        : ''}"
      onclick={() => press(b)}
      onfocus={() => (pointed = b.key)}
      onmouseenter={() => (pointed = b.key)}
      onkeydown={() => {}}
      class="point"
    >
      <circle cx={px} cy={py} r="12" fill="transparent" />
      {#if named}
        <rect
          x={px - 9}
          y={py - 9}
          width="18"
          height="18"
          fill={named === 'A' ? 'var(--copper)' : 'var(--sheet)'}
          stroke={named === 'A' ? 'var(--copper)' : 'var(--ink)'}
          stroke-width="1.6"
        />
        <text
          x={px}
          y={py + 4.5}
          text-anchor="middle"
          class="fig named"
          style:fill={named === 'A' ? 'var(--on-copper)' : 'var(--ink)'}>{named}</text
        >
      {:else}
        <circle
          cx={px}
          cy={py}
          r={top ? 5 : 4}
          fill={top ? 'var(--ink)' : 'var(--sheet)'}
          stroke={pointed === b.key ? 'var(--copper)' : 'var(--ink-3)'}
          stroke-width={pointed === b.key ? 2.5 : 1.3}
        />
      {/if}
    </g>
  {/each}
</Drawing>
<p class="note pointed" data-testid="pointed">
  {#if hand}
    <b>{hand.name}</b>: {hand.bill.unknown.length > 0
      ? `price not known (${hand.bill.unknown.join(', ')})`
      : money(hand.bill.total)}, {m.name}
    {m.say(m.of(hand)!)}, {hand.bill.connections} connections.
    {#if beats(hand)}{beats(hand)!.name} beats it.{/if}
    {#if hand.key !== present?.key}<button type="button" class="link-copper" onclick={() => press(hand)}
        >{builds.keys.includes(hand.key) ? 'take it away' : builds.full ? 'five are shown' : 'compare it'}</button
      >{/if}
  {:else}Up and to the left is better. Solid: nothing beats it. Press a point to put it beside the others{builds.keys
      .length > 1
      ? ''
      : ''}; A is the present one.{/if}
</p>
<AsTable
  heads={['not beaten', 'whole cost', m.name]}
  rows={[]}
  plain={best.map((b) => [
    b.name + (b.key === present?.key || builds.keys.includes(b.key) ? ' (shown)' : ''),
    money(b.bill.total),
    m.say(m.of(b)!),
  ])}
/>
{#if builds.keys.length > 1 || builds.subject !== PRESENT}
  <p class="note mt-1">
    Side by side now: {(builds.comparison?.builds ?? []).map((b, i) => `${letter(i)} ${b.name}`).join(', ')}.
    <button type="button" class="link-copper" onclick={() => (builds.look = 'beside')}>look at them</button>
  </p>
{/if}

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: flex-end;
    margin: 6px 0;
  }
  .controls label {
    display: inline-flex;
    flex-direction: column;
    font-size: 12.5px;
  }
  .controls .tick {
    flex-direction: row;
    gap: 5px;
    align-items: center;
    min-height: 26px;
  }
  .slide input {
    width: 170px;
    height: 22px;
    accent-color: var(--ink);
  }
  .small {
    font-size: 11.5px;
    fill: var(--ink-2);
  }
  .named {
    font-size: 12.5px;
    font-weight: 700;
  }
  .point {
    cursor: pointer;
  }
  .pointed {
    min-height: 36px;
  }
  button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    .controls .tick,
    button {
      min-height: 44px;
    }
    .slide input,
    .controls .select {
      height: 44px;
    }
  }
</style>
