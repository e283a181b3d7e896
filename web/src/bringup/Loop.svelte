<script lang="ts">
  import type { BringUpLoop, LoopItem } from '../api/client'
  import AsTable from '../ui/AsTable.svelte'
  import { bringUp } from './bringup.svelte'
  import { written } from './meterText'

  /** The loop unrolled: each joint’s own drop as a column on its stud, plus upward, minus downward. A bad one stands out of its siblings
   * without a number being read. */
  interface Props {
    loop: BringUpLoop
  }
  let { loop }: Props = $props()

  let width = $state(716)
  const W = $derived(Math.max(380, Math.min(900, width)))
  const PX_PER_M = 180
  const narrow = $derived(W < 620)
  const DEVICE = $derived(narrow ? 40 : 50)
  const LEAST = $derived(narrow ? 34 : 46)
  const PLUS = 112
  const MINUS = 176
  const ROOM = 78

  interface Placed {
    item: LoopItem
    x: number
    width: number
  }
  const place = (items: LoopItem[]) => {
    const metres = items.reduce((sum, i) => sum + (i.kind === 'piece' ? (i.lengthM ?? 0) : 0), 0)
    const devices = items.filter((i) => i.kind === 'device').length
    const pieces = items.filter((i) => i.kind === 'piece').length
    const room = W - 20 - devices * DEVICE - pieces * LEAST
    const scale = Math.min(PX_PER_M, Math.max(0, room) / Math.max(0.01, metres))
    let x = 10
    return items.map((item): Placed => {
      const width = item.kind === 'device' ? DEVICE : item.kind === 'piece' ? LEAST + scale * (item.lengthM ?? 0) : 0
      const placed = { item, x, width }
      x += width
      return placed
    })
  }
  const plus = $derived(place(loop.plus))
  const minus = $derived(place(loop.minus))
  /** One that is far out is cut short, so that its siblings are still seen. */
  const most = $derived(
    Math.max(
      1.35 * loop.lookMv,
      ...[...loop.plus, ...loop.minus]
        .filter((i) => i.kind === 'joint')
        .map((i) => Math.min(3 * loop.lookMv, i.measuredMv ?? 0)),
    ),
  )
  const said = $derived(
    [
      loop.measured ? 'read at the shunt' : 'to be expected',
      '; outline: a sound joint; filled: measured; black: wrong',
      loop.postsV == null ? '' : `. ${written(loop.postsV, 2)} V at the posts`,
      loop.endV == null
        ? ''
        : `${loop.postsV == null ? '. ' : ', '}${written(loop.endV, 2)} V to be expected at the far end`,
    ].join(''),
  )
  const high = $derived((mv: number) => Math.min(1, mv / most) * ROOM)
  const table = $derived(
    [...loop.plus, ...loop.minus]
      .filter((i) => i.kind !== 'device')
      .map((i) => [title(i), written(i.soundMv ?? 0, 1), i.measuredMv == null ? '' : written(i.measuredMv, 1)]),
  )
  const title = (i: LoopItem) => bringUp.steps.find((s) => s.key === i.step)?.title ?? `${i.tag} along`
  const copperPx = (i: LoopItem) => Math.min(16, Math.max(3, 2 * (i.mm ?? 3)))
  /** A lug stands on its own side of the stud: the first of a piece at its left end. */
  const jointX = (list: Placed[], at: number) => {
    const before = list[at - 1]?.item.kind === 'piece'
    return list[at].x + (before ? -10 : 10)
  }
  const next = $derived(
    [...loop.plus, ...loop.minus].find(
      (i) =>
        i.kind === 'joint' && i.step && bringUp.steps.find((s) => s.key === i.step)?.state === 'open' && !i.measuredMv,
    )?.step,
  )
</script>

{#snippet pole(list: Placed[], y: number, up: boolean)}
  {#each list as p, n (n)}
    {@const i = p.item}
    {#if i.kind === 'piece'}
      {@const px = copperPx(i)}
      <rect x={p.x} y={y - px / 2} width={p.width} height={px} fill="var(--copper-body)" />
      <rect
        x={p.x}
        y={y - (px * (i.used ?? 0)) / 2}
        width={p.width}
        height={px * Math.min(1, i.used ?? 0)}
        fill="var(--copper)"
      />
      {#if p.width > 74 || (p.width > 40 && !i.measuredMv)}
        <text x={p.x + p.width / 2} y={y + (up ? 27 : -18)} text-anchor="middle">
          <tspan class="fig">{i.tag}</tspan>
          {#if p.width > 74}<tspan fill="var(--ink-2)"
              >{i.measuredMv === null || i.measuredMv === undefined
                ? ` ${written(i.soundMv ?? 0, 1)} mV`
                : ` ${written(i.measuredMv, 1)} of ${written(i.soundMv ?? 0, 1)}`}</tspan
            >{/if}
        </text>
      {/if}
    {/if}
  {/each}
  {#each list as p, n (n)}
    {@const i = p.item}
    {#if i.kind === 'device'}
      <rect
        x={p.x + 2}
        y={y - 13}
        width={p.width - 4}
        height="26"
        rx={n === 0 ? 13 : 0}
        fill="var(--sheet)"
        stroke="var(--ink)"
        stroke-width="1.4"
      />
      <text class="fig" x={p.x + p.width / 2} y={y + 4} text-anchor="middle">{i.tag}</text>
    {/if}
  {/each}
  {#each list as p, n (n)}
    {@const i = p.item}
    {#if i.kind === 'joint'}
      {@const x = jointX(list, n)}
      {@const base = up ? y - 15 : y + 15}
      {@const sound = high(i.soundMv ?? 0)}
      {@const shown = i.measuredMv === null || i.measuredMv === undefined ? null : high(Math.abs(i.measuredMv))}
      <!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
      <g class="joint" data-joint={i.step} onclick={() => i.step && (bringUp.hand = i.step)}>
        <rect x={x - 12} y={up ? base - ROOM : base} width="24" height={ROOM} fill="transparent" stroke="none" />
        <rect
          x={x - 6}
          y={up ? base - sound : base}
          width="12"
          height={Math.max(2, sound)}
          fill="none"
          stroke="var(--ink)"
          stroke-dasharray={shown === null ? '2 2' : undefined}
        />
        {#if shown !== null}
          <rect
            x={x - 6}
            y={up ? base - shown : base}
            width="12"
            height={Math.max(2, shown)}
            fill={i.state === 'wrong' ? 'var(--ink)' : i.state === 'look' ? 'url(#loop-look)' : 'var(--hair)'}
            stroke="var(--ink)"
          />
          {#if Math.abs(i.measuredMv ?? 0) > most}<path
              d="M{x - 9} {up ? base - ROOM + 16 : base + ROOM - 16} l18 -6"
              stroke="var(--sheet)"
              stroke-width="3"
            />{/if}
          <text
            class="fig"
            {x}
            y={up ? base - Math.max(sound, shown) - 4 : base + Math.max(sound, shown) + 13}
            text-anchor="middle">{written(i.measuredMv ?? 0, 1)}</text
          >
        {:else if i.step === next}
          <path
            d="M{x - 5} {up ? base - sound - 10 : base + sound + 10} l5 {up ? 6 : -6} l5 {up ? -6 : 6}"
            fill="none"
            stroke="var(--copper)"
            stroke-width="2"
          />
        {/if}
        {#if i.step === bringUp.step?.key}<rect
            x={x - 10}
            y={up ? base - ROOM : base}
            width="20"
            height={ROOM}
            fill="none"
            stroke="var(--copper)"
            stroke-width="1.6"
          />{/if}
      </g>
    {/if}
  {/each}
{/snippet}

<figure class="loop" data-testid="loop" bind:clientWidth={width}>
  <figcaption>
    <b>What each joint drops at {written(loop.amps, 1)} A</b>
    <span class="caption">{said}</span>
  </figcaption>
  <svg width={W} height="288" role="img" aria-label="Every joint of both poles with what it drops; as a table below">
    <defs>
      <pattern id="loop-look" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="5" height="5" fill="var(--sheet)" /><rect width="2.4" height="5" fill="var(--ink)" />
      </pattern>
    </defs>
    {#each [PLUS - 15 - high(loop.lookMv), MINUS + 15 + high(loop.lookMv)] as y (y)}
      <line x1="10" x2={W - 6} y1={y} y2={y} stroke="var(--ink)" stroke-dasharray="4 3" stroke-width="0.8" />
    {/each}
    <text x={W - 6} y={PLUS - 20 - high(loop.lookMv)} text-anchor="end"
      >{written(loop.lookMv, 1)} mV, a joint is worth a look</text
    >
    {@render pole(plus, PLUS, true)}
    {@render pole(minus, MINUS, false)}
  </svg>
  <AsTable heads={['place', 'sound, mV', 'measured, mV']} rows={[]} plain={table} />
</figure>

<style>
  .loop {
    margin: 0;
    overflow-x: auto;
    overflow-y: hidden;
  }
  figcaption {
    display: flex;
    flex-wrap: wrap;
    gap: 0 8px;
    align-items: baseline;
    font-size: 12.5px;
  }
  svg {
    display: block;
  }
  .joint {
    cursor: pointer;
  }
</style>
