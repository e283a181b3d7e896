<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import { cut } from '../../drawing/geometry'
  import { num, say } from '../../ui/quantity'
  import { ac } from './ac.svelte'
  import { feeds, isSwitch, layout, nameOf, positionName, positionsOf } from './acLayout'
  import type { Placed } from './acLayout'

  /** Supplies left, circuits right; thick is live. A switch is turned by pressing it. */
  let width = $state(900)
  const board = $derived(ac.answer)
  const plan = $derived(layout(ac.drawing.parts, ac.drawing.wires, board?.columns ?? [], width))
  const now = $derived(board?.states[ac.state] ?? null)
  /** Who feeds a part in this state: by mains, by inverter, by more than one. */
  const fedBy = $derived.by(() => {
    const by = new Map<string, Set<string>>()
    for (const feed of now?.feeds ?? []) {
      for (const id of [feed.source, ...feed.live]) {
        if (!by.has(id)) by.set(id, new Set())
        by.get(id)!.add(feed.source)
      }
    }
    return by
  })
  const kindOf = $derived(new Map(ac.drawing.parts.map((p) => [p.id, p.kind])))
  function live(id: string): 'dark' | 'mains' | 'inverter' | 'both' {
    const by = [...(fedBy.get(id) ?? [])]
    if (by.length === 0) return 'dark'
    if (by.length > 1) return 'both'
    return kindOf.get(by[0]) === 'inverter' ? 'inverter' : 'mains'
  }
  function closed(w: (typeof plan.lines)[number]['wire']): boolean {
    const turned = (id: string) => {
      const n = board?.switches.findIndex((s) => s.part === id) ?? -1
      return n < 0 ? 1 : (now?.positions[n] ?? 1)
    }
    return (
      (w.fromAt.length === 0 || w.fromAt.includes(turned(w.from))) &&
      (w.toAt.length === 0 || w.toAt.includes(turned(w.to)))
    )
  }
  const at = (id: string) => {
    const n = board?.switches.findIndex((s) => s.part === id) ?? -1
    return n < 0 ? 1 : (now?.positions[n] ?? 1)
  }
  const loads = $derived(new Map(session.evaluation!.banks.flatMap((b) => b.loads?.rows ?? []).map((r) => [r.id, r])))
  const wattsOf = (p: Placed['part']) =>
    (p.watts ?? 0) + p.loads.reduce((sum, id) => sum + (loads.get(id)?.runningW ?? 0), 0)
  /** Room that the watts of a circuit take beside its name. */
  const beside = (p: Placed['part']) =>
    p.kind === 'circuit' && wattsOf(p) > 0 ? 8 + 7.4 * (num(wattsOf(p)).length + 2) : 0
  const detail = (p: Placed['part']) =>
    p.kind === 'circuit' ? (wattsOf(p) > 0 ? ` ${num(wattsOf(p))} W` : '') : under(p) ? ` ${under(p)}` : ''
  function under(p: Placed['part']): string {
    if (p.kind === 'plug') return p.amps ? say(p.amps, 'rating') : 'breaker not said'
    if (p.kind === 'generator') return p.watts ? `${num(p.watts)} W` : 'watts not said'
    if (p.kind === 'panel') return p.amps ? `${say(p.amps, 'rating')} breaker` : ''
    if (isSwitch(p)) return p.amps ? `contacts ${say(p.amps, 'rating')}` : ''
    if (p.kind === 'charger') {
      const amps = board?.chargers.find((c) => c.part === p.id)?.amps
      return amps ? say(amps, 'A') : 'amperes not said'
    }
    if (p.kind === 'inverter') return 'of the bank'
    return ''
  }
  const inTrouble = $derived(
    new Set(
      (now?.troubles ?? []).flatMap((t) => (board!.troubles[t].kind === 'continuous' ? [] : board!.troubles[t].parts)),
    ),
  )
</script>

<Drawing name={board?.headline ?? 'AC side'} bind:width height={plan.height} least={560}>
  {#each plan.lines as l (l.index)}
    {@const on = closed(l.wire)}
    {@const a = live(l.wire.from)}
    {@const b = live(l.wire.to)}
    {@const kind = on && a === b ? a : on && (a === 'dark' || b === 'dark') ? 'dark' : on ? a : 'dark'}
    <path
      d={l.d}
      fill="none"
      stroke={kind === 'mains' ? 'var(--copper)' : kind === 'dark' ? 'var(--ink-3)' : 'var(--ink)'}
      stroke-width={kind === 'dark' ? 1 : kind === 'both' ? 6 : 2.6}
      stroke-dasharray={on ? undefined : '4 3'}
      data-wire={`${l.wire.from} ${l.wire.to}`}
      data-live={kind}
    />
  {/each}
  {#each plan.placed as p (p.part.id)}
    {@const is = live(p.part.id)}
    {@const wrong = inTrouble.has(p.part.id)}
    <!-- svelte-ignore a11y_no_static_element_interactions -->
    <rect
      class="part"
      role="button"
      tabindex="-1"
      data-stop
      data-part={p.part.id}
      data-live={is}
      aria-label={`${nameOf(p.part)}${detail(p.part)}, ${is === 'dark' ? 'dark' : is === 'both' ? 'fed twice' : `on ${is}`}${
        isSwitch(p.part) ? `, at ${positionName(p.part, at(p.part.id))}; press again to turn it` : ''
      }`}
      onclick={() => {
        if (isSwitch(p.part) && ac.picked === p.part.id) ac.turn(p.part.id)
        ac.picked = p.part.id
      }}
      onkeydown={() => {}}
      x={p.x}
      y={p.y}
      width={p.w}
      height={p.h}
      fill={ac.picked === p.part.id ? 'var(--tint)' : 'var(--sheet)'}
      stroke={ac.picked === p.part.id ? 'var(--copper)' : 'var(--ink)'}
      stroke-width={ac.picked === p.part.id ? 2 : feeds(p.part) ? 1.8 : 1}
      stroke-dasharray={is === 'dark' && !feeds(p.part) ? '4 3' : undefined}
    />
    <g class="words">
      {#if wrong}<rect x={p.x + p.w - 11} y={p.y + 3} width="8" height="8" fill="var(--ink)" />{/if}
      <text x={p.x + 7} y={p.y + (p.part.kind === 'circuit' ? 19 : 16)} class="name"
        >{cut(nameOf(p.part), Math.max(3, Math.floor((p.w - 12 - beside(p.part)) / 7.4)))}</text
      >
      {#if p.part.kind === 'circuit'}
        {@const watts = wattsOf(p.part)}
        {#if watts > 0}<text x={p.x + p.w - 6} y={p.y + 19} text-anchor="end" class="fig">{num(watts)} W</text>{/if}
      {:else if isSwitch(p.part)}
        {#each Array.from({ length: positionsOf(p.part) }, (_, i) => i + 1) as n (n)}
          {@const y = p.y + 30 + 17 * (n - 1)}
          <circle
            cx={p.x}
            cy={y}
            r="3"
            fill={at(p.part.id) === n ? 'var(--ink)' : 'var(--sheet)'}
            stroke="var(--ink)"
          />
          <text x={p.x + 8} y={y + 4} class={['word', at(p.part.id) === n && 'on']}
            >{cut(positionName(p.part, n), 12)}</text
          >
          {#if at(p.part.id) === n}<line
              x1={p.x + p.w}
              x2={p.x + 8 + 7 * Math.min(12, positionName(p.part, n).length)}
              y1={p.y + p.h / 2}
              y2={y}
              stroke="var(--ink)"
              stroke-width="2.2"
            />{/if}
        {/each}
      {:else}
        <text x={p.x + 7} y={p.y + 33} class="word">{cut(under(p.part), Math.floor(p.w / 6.6))}</text>
      {/if}
    </g>
  {/each}
</Drawing>

<style>
  .part {
    cursor: pointer;
  }
  .words {
    pointer-events: none;
  }
  .name {
    font-size: 13px;
    font-weight: 600;
  }
  .word {
    font-size: 12px;
    fill: var(--ink-2);
  }
  .word.on {
    font-weight: 700;
    fill: var(--ink);
  }
  .fig {
    font-size: 13px;
  }
</style>
