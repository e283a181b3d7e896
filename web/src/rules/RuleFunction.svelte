<script lang="ts">
  import type { HouseRule } from '../api/client'
  import { session } from '../app/session.svelte'
  import { ticks } from '../drawing/geometry'
  import AsTable from '../ui/AsTable.svelte'
  import { current, pretty, same, takeRule } from '../ui/houseRules'
  import { plainNumber, say } from '../ui/quantity'
  import { rules } from './rules.svelte'

  /** One rule by itself: what it asks for over its values, dragged; a rule of words as its results side by side. */
  let { rule }: { rule: HouseRule } = $props()
  const curve = $derived(rules.curve?.rule === rule.id ? rules.curve : null)
  const row = $derived(rules.rows.get(rule.id) ?? null)
  const here = $derived(current(rule))
  let width = $state(460)
  const [H, TOP, BOTTOM, LEFT, RIGHT] = [198, 46, 24, 46, 12]
  const points = $derived(curve?.points ?? [])
  const [low, high] = $derived.by(() => {
    const values = points.map((p) => p.value)
    const [a, b] = [Math.min(...values), Math.max(...values)]
    const floor = curve?.stepped && a <= 12 && curve.unit === '' ? 0 : a - (b - a) * 0.15
    return [floor, b + (b - floor) * 0.06 || 1]
  })
  const x = (at: number) => LEFT + ((at - curve!.from) / (curve!.to - curve!.from)) * (width - LEFT - RIGHT)
  const y = (value: number) => H - BOTTOM - ((value - low) / (high - low)) * (H - BOTTOM - TOP)
  const line = $derived(
    points
      .map((p, i) => {
        // Whole values: a step lies where the next one begins.
        const before = points[i - 1]
        const riser =
          curve!.stepped && before && before.at !== p.at ? `H${x(p.at)}V${y(p.value)}` : `L${x(p.at)},${y(p.value)}`
        return i === 0 ? `M${x(p.at)},${y(p.value)}` : riser
      })
      .join(''),
  )
  const force = $derived(curve?.stems.find((s) => s.set === null) ?? null)
  const at = $derived(rules.tried ?? force?.at ?? null)
  const said = $derived(points.filter((p) => at !== null && p.at <= at + 1e-9).at(-1) ?? points[0] ?? null)
  const stems = $derived.by(() => {
    if (!curve) return []
    const byPlace = new Map<number, { at: number; letters: string[]; text: string }>()
    for (const s of curve.stems) {
      if (!s.set || s.at < curve.from || s.at > curve.to) continue
      const known = byPlace.get(s.at) ?? { at: s.at, letters: [], text: s.text }
      known.letters.push(s.set[0].toUpperCase())
      byPlace.set(s.at, known)
    }
    // Labels that would meet stand on two lines.
    let last = -Infinity
    return [...byPlace.values()]
      .sort((a, b) => a.at - b.at)
      .map((s, i, all) => {
        const w = s.letters.length * 19 + s.text.length * 6.6 + 8
        const left = x(s.at) + w > width ? x(s.at) - w : x(s.at) - 9
        const second = left < last || (i > 0 && all[i - 1] && left < last)
        last = Math.max(last, left + w)
        return { ...s, w, left, y: second ? 34 : 14, right: x(s.at) + w > width }
      })
  })

  let svg = $state<SVGSVGElement>()
  function toValue(clientX: number) {
    const box = svg!.getBoundingClientRect()
    const share = (clientX - box.left - LEFT) / (width - LEFT - RIGHT)
    const raw = curve!.from + Math.min(1, Math.max(0, share)) * (curve!.to - curve!.from)
    return tidy(raw)
  }
  const tidy = (raw: number) =>
    Number((Math.round(Math.min(curve!.to, Math.max(curve!.from, raw)) / curve!.step) * curve!.step).toPrecision(6))
  function drag(e: PointerEvent) {
    if (!curve || points.length === 0) return
    const target = e.currentTarget as SVGSVGElement
    target.setPointerCapture(e.pointerId)
    rules.tried = toValue(e.clientX)
    const move = (m: PointerEvent) => (rules.tried = toValue(m.clientX))
    const up = () => {
      target.removeEventListener('pointermove', move)
      target.removeEventListener('pointerup', up)
      target.removeEventListener('pointercancel', up)
    }
    target.addEventListener('pointermove', move)
    target.addEventListener('pointerup', up)
    target.addEventListener('pointercancel', up)
  }
  function key(e: KeyboardEvent) {
    if (!curve || at === null) return
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 }[e.key]
    if (by) {
      e.preventDefault()
      rules.tried = tidy(at + by * curve.step * (e.shiftKey ? 10 : 1))
    } else if (e.key === 'Enter' && rules.tried !== null) take()
    else if (e.key === 'Escape' && rules.tried !== null) {
      e.stopPropagation()
      rules.tried = null
    }
  }
  function take() {
    takeRule(rule, String(rules.tried))
    rules.tried = null
  }
  const axis = $derived(curve ? ticks(curve.to, 6).filter((t) => t >= curve.from) : [])
  /** Of steps the values themselves, as long as they are few. */
  const steps = $derived([...new Set(points.map((p) => p.value))])
  const marks = $derived(curve?.stepped && steps.length <= 8 ? steps : ticks(high, 5).filter((t) => t >= low))
  const written = (v: number) => say(v, curve!.unit)
</script>

<section class="function" aria-labelledby="function-title" data-testid="rule-function">
  <h2 id="function-title" class="font-bold text-[13.5px]">
    {rule.label} alone{#if points.length > 0}: drag it
      <span class="note font-normal">{curve!.label}</span>{/if}
  </h2>
  {#if curve && points.length > 0 && at !== null}
    <div bind:clientWidth={width}>
      <!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
      <svg
        bind:this={svg}
        {width}
        height={H}
        role="group"
        aria-label="{curve.label} over {rule.label}"
        class="block touch-none"
        onpointerdown={drag}
      >
        {#each marks as t (t)}
          <line x1={LEFT} x2={width - RIGHT} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
          <text x={LEFT - 5} y={y(t) + 4} text-anchor="end" class="fig small">{written(t)}</text>
        {/each}
        <path d="{line}V{H - BOTTOM}H{x(points[0].at)}Z" fill="var(--grid)" />
        <path d={line} fill="none" stroke="var(--ink)" stroke-width="2" />
        <line x1={LEFT} x2={width - RIGHT} y1={H - BOTTOM} y2={H - BOTTOM} stroke="var(--ink)" />
        {#each axis as t (t)}<text x={x(t)} y={H - 7} text-anchor="middle" class="fig small"
            >{rule.unit === 'fraction' ? pretty(rule, String(t)) : plainNumber(t)}</text
          >{/each}
        {#each stems as s (s.at)}
          <line x1={x(s.at)} x2={x(s.at)} y1={s.y + 8} y2={H - BOTTOM} stroke="var(--ink)" stroke-dasharray="2 3" />
          {#each s.letters as l, i (l)}
            {@const bx = s.right ? s.left + s.w - (s.letters.length - i) * 19 : s.left + i * 19}
            <rect
              x={bx}
              y={s.y - 10}
              width="17"
              height="17"
              fill="var(--sheet)"
              stroke="var(--ink)"
              stroke-width="1.5"
            />
            <text x={bx + 8.5} y={s.y + 3} text-anchor="middle" class="fig small b">{l}</text>
          {/each}
          <text
            x={s.right ? s.left + s.w - s.letters.length * 19 - 5 : s.left + s.letters.length * 19 + 2}
            y={s.y + 3}
            text-anchor={s.right ? 'end' : 'start'}
            class="fig small">{s.text}</text
          >
        {/each}
        {#if curve.built?.holds != null}
          <line
            x1={LEFT}
            x2={x(curve.built.holds)}
            y1={y(curve.built.value)}
            y2={y(curve.built.value)}
            stroke="var(--copper)"
            stroke-width="3"
          />
          <circle cx={x(curve.built.holds)} cy={y(curve.built.value)} r="4.5" fill="var(--copper)" />
        {/if}
        <!-- The one in force, or being dragged. -->
        <g
          role="slider"
          tabindex="0"
          aria-label="{rule.label}, drag"
          aria-valuemin={curve.from}
          aria-valuemax={curve.to}
          aria-valuenow={at}
          aria-valuetext="{pretty(rule, String(at))}: {said?.text ?? ''}"
          data-testid="rule-stem"
          onkeydown={key}
          class="stem"
        >
          <line
            x1={x(Math.min(curve.to, Math.max(curve.from, at)))}
            x2={x(Math.min(curve.to, Math.max(curve.from, at)))}
            y1={TOP - 4}
            y2={H - BOTTOM}
            stroke="var(--copper)"
            stroke-width="2.2"
            stroke-dasharray="6 4"
          />
          <path
            d="M{x(Math.min(curve.to, Math.max(curve.from, at))) - 7},{H - BOTTOM + 9}h14l-7,-10z"
            fill="var(--copper)"
          />
        </g>
      </svg>
    </div>
    <p class="note" data-testid="rule-said">
      <b>{pretty(rule, String(at))}: {said?.text}</b>{curve.built ? `. ${curve.built.sentence}` : ''}.
      {#if rules.tried !== null && !same(String(rules.tried), here)}
        <button type="button" class="btn btn-primary btn-xs" onclick={take}
          >Take {pretty(rule, String(rules.tried))}</button
        >
        <button type="button" class="link-copper" onclick={() => (rules.tried = null)}>let it go</button>
      {/if}
    </p>
    <AsTable
      heads={[rule.label, curve.label]}
      rows={[]}
      plain={points.map((p) => [pretty(rule, String(p.at)), p.text])}
    />
  {:else if row}
    <div class="cards">
      {#each row.choices as c (c.value)}
        <div class={['card', c.here && 'here']}>
          <p>
            <b>{pretty(rule, c.value)}</b>
            {#if c.schools.length > 0}<span class="note">{c.schools.join(', ')}</span>{/if}
          </p>
          {#if c.here}<p class="note">holds here</p>
          {:else if c.changes.length === 0}<p class="note">{row.elsewhere ?? 'changes nothing here'}</p>
          {:else}
            {#each c.changes.slice(0, 7) as change (change.label)}<p class="change">
                {change.label}: {change.now === '' ? '' : `${change.now} → `}<b>{change.then}</b>
              </p>{/each}
            <button type="button" class="link-copper" onclick={() => takeRule(rule, c.value)}>take it</button>
          {/if}
        </div>
      {/each}
    </div>
  {:else}<p class="note" role="status">{rules.told || 'One moment…'}</p>{/if}
  {#if curve && points.length > 0 && session.result?.loads}
    <p class="caption">Each value is the whole design worked out with it, all else as it stands.</p>
  {/if}
</section>

<style>
  .function {
    border-top: 1px solid var(--hair);
    margin-top: 8px;
    padding-top: 8px;
  }
  .small {
    font-size: 11.5px;
    fill: var(--ink);
  }
  .b {
    font-weight: 700;
  }
  .stem {
    cursor: ew-resize;
  }
  svg {
    cursor: ew-resize;
  }
  .cards {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
    gap: 8px;
    margin-top: 4px;
  }
  .card {
    border: 1px solid var(--ink-3);
    padding: 6px 8px;
    font-size: 12.5px;
  }
  .card.here {
    border: 2px solid var(--copper);
  }
  .change {
    line-height: 1.25;
    margin-top: 2px;
  }
  button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
    }
  }
</style>
