<script lang="ts">
  import type { FoundDrawing } from '../api/client'
  import { Corners } from './foundPen'
  import { foundPlan } from './foundPlan'

  /** A bank as somebody left it: what one would read off it with a torch, and nothing else. */
  export interface Flag {
    text: string
    miss: boolean
    parts: readonly string[]
    /** An overlooked fault, told at the end. */
    told?: boolean
  }
  interface Props {
    drawing: FoundDrawing
    flags: readonly Flag[]
    pointed: string | null
    names: ReadonlyMap<string, string>
    height?: number
    onpoint: (key: string) => void
  }
  let { drawing, flags, pointed, names, height = 470, onpoint }: Props = $props()
  const plan = $derived(foundPlan(drawing, height))
  const here = $derived(plan.hits.filter((h) => h.key === pointed))
  /** A flag stands on the first two of its parts, and no mark on words or on another one. */
  const marks = $derived.by(() => {
    const corners = new Corners(plan)
    const placed = flags.flatMap((f) =>
      f.parts
        .flatMap((k) => plan.hits.filter((h) => h.key === k).slice(0, 1))
        .slice(0, 2)
        .map((h) => ({ ...f, ...corners.at(h, 20, 20) })),
    )
    return { placed, asked: here[0] ? corners.at(here[0], 14, 16) : null }
  })
</script>

<svg
  class="found"
  width={plan.width}
  height={plan.height}
  viewBox="0 0 {plan.width} {plan.height}"
  role="group"
  aria-label="The bank as found; Tab and the arrow keys go from part to part"
>
  {#each plan.shapes as s, i (i)}
    {#if s.t === 'copper'}<path d={s.d} fill="none" stroke="var(--copper)" stroke-width={s.w} />
    {:else if s.t === 'gap'}<path d={s.d} fill="none" stroke="var(--sheet)" stroke-width={s.w} />
    {:else if s.t === 'ink'}<path
        d={s.d}
        fill="none"
        stroke="var(--ink)"
        stroke-width={s.w ?? 1}
        stroke-dasharray={s.dash}
      />
    {:else if s.t === 'box'}<rect
        x={s.x}
        y={s.y}
        width={s.w}
        height={s.h}
        fill={s.tint ? 'var(--page)' : 'var(--sheet)'}
        stroke="var(--ink)"
        stroke-width={s.heavy ? 1.6 : 1}
      />
    {:else if s.t === 'post'}
      <circle cx={s.x} cy={s.y} r="8" fill="var(--sheet)" stroke="var(--ink)" />
      <text x={s.x} y={s.y + 4.5} text-anchor="middle" style:font-weight="700" style:font-size="13px">{s.sign}</text>
    {:else if s.t === 'dot'}<circle cx={s.x} cy={s.y} r="3" fill="var(--ink)" />
    {/if}
  {/each}
  {#each plan.shapes as s, i (i)}
    {#if s.t === 'text'}<text
        x={s.x}
        y={s.y}
        text-anchor={s.anchor}
        class={[s.fig && 'fig', s.faint && 'faint']}
        style:font-size={s.size ? `${s.size}px` : undefined}
        style:font-weight={s.bold ? 650 : undefined}>{s.s}</text
      >{/if}
  {/each}
  {#each here as h, i (i)}
    <rect
      x={h.x - 3}
      y={h.y - 3}
      width={h.w + 6}
      height={h.h + 6}
      fill="none"
      stroke="var(--copper)"
      stroke-width="2"
    />
  {/each}
  {#if marks.asked}
    <rect x={marks.asked.x} y={marks.asked.y} width="14" height="16" fill="var(--sheet)" />
    <text x={marks.asked.x + 7} y={marks.asked.y + 13} text-anchor="middle" class="asked">?</text>
  {/if}
  {#each marks.placed as f, i (i)}
    <g class="flag" data-flag={f.text}>
      <rect
        x={f.x}
        y={f.y}
        width="20"
        height="20"
        fill={f.miss || f.told ? 'var(--sheet)' : 'var(--ink)'}
        stroke="var(--ink)"
        stroke-width={f.told ? 2 : 1.2}
      />
      {#if f.miss}<path d="M{f.x} {f.y + 20}L{f.x + 20} {f.y}" stroke="var(--ink)" />{/if}
      <text
        x={f.x + 10}
        y={f.y + 15}
        text-anchor="middle"
        class="fig"
        style:font-size="13px"
        style:fill={f.miss || f.told ? 'var(--ink)' : 'var(--sheet)'}
        style:--ground={f.miss || f.told ? 'var(--sheet)' : 'var(--ink)'}>{f.text}</text
      >
    </g>
  {/each}
  {#each plan.hits as h, i (i)}
    <!-- Keys are the picture's own: they walk from part to part. -->
    <rect
      class="hit"
      x={h.x}
      y={h.y}
      width={h.w}
      height={h.h}
      role="button"
      tabindex={h.key === pointed || (pointed === null && i === 0) ? 0 : -1}
      data-part={h.key}
      aria-label={names.get(h.key) ?? h.key}
      aria-pressed={h.key === pointed}
      onclick={() => onpoint(h.key)}
      onkeydown={(e) => {
        if (e.key === 'Enter' || e.key === ' ') {
          e.preventDefault()
          onpoint(h.key)
        }
      }}
    />
  {/each}
</svg>

<style>
  .found {
    display: block;
    max-width: none;
  }
  .hit {
    fill: transparent;
    cursor: pointer;
  }
  .hit:hover {
    stroke: var(--ink-3);
    stroke-dasharray: 3 3;
  }
  .hit:focus-visible {
    outline: none;
    stroke: var(--ink);
    stroke-width: 2;
  }
  .asked {
    font-weight: 700;
    font-size: 14px;
    fill: var(--copper-text);
  }
  text {
    pointer-events: none;
  }
  .faint {
    fill: var(--ink-2);
  }
</style>
