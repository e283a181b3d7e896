<script lang="ts">
  import { untrack } from 'svelte'
  import { session } from '../../app/session.svelte'
  import Mark from '../../ui/Mark.svelte'
  import { answer as answered, fieldText, num, parse, say, stringName } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { joining } from './joining.svelte'

  /** Two strings about to be joined: each as wide as its ampere-hours and as high as it is full, so that area is what is in it. */
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => joining.reset())
  })
  $effect(() => {
    if (session.evaluation) void joining.ask()
  })

  const j = $derived(joining.answer)
  const strings = $derived(session.result?.bank?.layout.parallel ?? 1)
  const TOP = 14
  const TALL = 120
  const GAP = 78
  const WIDE = 280
  const side = (ah: number) => (j ? (ah / (j.a.ah + j.b.ah)) * (WIDE - GAP) : 0)
  const vessels = $derived(
    j
      ? ([
          { key: 'a' as const, of: j.a, x: 0, width: side(j.a.ah) },
          { key: 'b' as const, of: j.b, x: side(j.a.ah) + GAP, width: side(j.b.ah) },
        ] as const)
      : [],
  )
  const y = (soc: number) => TOP + (1 - soc) * TALL

  /** A level is dragged by hand or nudged by arrows, to the whole percent. */
  function level(key: 'a' | 'b', soc: number) {
    joining.put(key, { soc: Math.round(Math.max(0, Math.min(1, soc)) * 100) / 100, restV: null })
  }
  function drag(key: 'a' | 'b') {
    return (e: PointerEvent) => {
      const target = e.currentTarget as SVGElement
      const box = target.ownerSVGElement!.getBoundingClientRect()
      const scale = box.height / target.ownerSVGElement!.viewBox.baseVal.height
      const to = (p: PointerEvent) => level(key, 1 - ((p.clientY - box.top) / scale - TOP) / TALL)
      target.setPointerCapture(e.pointerId)
      to(e)
      target.onpointermove = to
      target.onpointerup = target.onpointercancel = () => (target.onpointermove = null)
    }
  }
  function arrow(key: 'a' | 'b', soc: number) {
    return (e: KeyboardEvent) => {
      const by = { ArrowUp: 0.01, ArrowDown: -0.01, PageUp: 0.1, PageDown: -0.1 }[e.key]
      if (by === undefined) return
      e.preventDefault()
      level(key, soc + by)
    }
  }

  function read(key: 'a' | 'b', kind: 'share' | 'voltage') {
    return (typed: string) => {
      if (typed.trim() === '') {
        joining.put(key, { soc: null, restV: null })
        return {}
      }
      const fits = (v: number) => (kind === 'share' ? v >= 0 && v <= 1 : v > 0 && v <= 1000)
      const parsed = parse(typed, kind, 'metric', fits)
      if ('value' in parsed && !fits(parsed.value))
        return { reason: kind === 'share' ? 'from 0 to 100 %' : 'more than 0 V' }
      return answered(
        parsed,
        (v) => fieldText(v, kind, 'metric'),
        (v) => joining.put(key, kind === 'share' ? { soc: v, restV: null } : { soc: null, restV: v }),
      )
    }
  }
</script>

{#if j}
  <section class="joining" data-testid="joining">
    <h3>Joining {stringName(j.a.string)} and {stringName(j.b.string)} again</h3>
    <p class="caption">each at rest, an hour after charge or load</p>
    <svg viewBox="0 0 {WIDE} {TOP + TALL + 24}" class="bare drawing">
      {#each vessels as v (v.key)}
        {@const soc = v.of.soc}
        <rect
          x={v.x + 0.5}
          y={TOP}
          width={v.width}
          height={TALL}
          fill="var(--sheet)"
          stroke="var(--ink)"
          stroke-width="1.4"
        />
        {#if soc !== null}
          <rect
            x={v.x + 1.2}
            y={y(soc)}
            width={Math.max(0, v.width - 1.4)}
            height={TALL - (y(soc) - TOP)}
            class="fill"
          />
        {:else}
          <text x={v.x + v.width / 2 + 0.5} y={TOP + TALL / 2} text-anchor="middle" class="word">?</text>
        {/if}
        {#if j.levelSoc !== null}
          <line x1={v.x} x2={v.x + v.width} y1={y(j.levelSoc)} y2={y(j.levelSoc)} class="level" />
        {/if}
        <!-- Its whole height is the hand's. -->
        <rect
          x={v.x}
          y="0"
          width={v.width + 1}
          height={TOP + TALL + 4}
          class="hand"
          role="slider"
          tabindex="0"
          aria-label="charge of string {stringName(v.of.string)}"
          aria-orientation="vertical"
          aria-valuemin="0"
          aria-valuemax="100"
          aria-valuenow={Math.round((soc ?? 0) * 100)}
          data-level={v.key}
          onpointerdown={drag(v.key)}
          onkeydown={arrow(v.key, soc ?? 0)}
        />
        <text x={v.x + v.width / 2} y={TOP + TALL + 17} text-anchor="middle" class="word"
          ><tspan class="fig">{stringName(v.of.string)}</tspan> {say(v.of.ah, 'Ah')}</text
        >
      {/each}
      <line
        x1={vessels[0].width + 1}
        x2={vessels[1].x}
        y1={TOP + TALL - 14}
        y2={TOP + TALL - 14}
        stroke="var(--copper)"
        stroke-width="5"
      />
      <rect
        x={vessels[0].width + GAP / 2 - 9}
        y={TOP + TALL - 22}
        width="18"
        height="16"
        fill="var(--sheet)"
        stroke="var(--ink)"
      />
      <path d="M{vessels[0].width + GAP / 2 - 5} {TOP + TALL - 10} l10 -8" stroke="var(--ink)" stroke-width="1.5" />
      <text x={vessels[0].width + GAP / 2} y={TOP + TALL - 30} text-anchor="middle" class="fig rush"
        >{say(j.rushA, 'A')}</text
      >
    </svg>
    <div class="fields">
      {#each vessels as v (v.key)}
        <div>
          {#if strings > 2}
            <select
              class="select select-xs h-[26px]"
              aria-label="{v.key === 'a' ? 'first' : 'second'} string"
              value={v.of.string}
              onchange={(e) => joining.pick(v.key, Number(e.currentTarget.value))}
            >
              {#each Array.from({ length: strings }, (_, s) => s + 1) as s (s)}
                <option value={s}>{stringName(s)}</option>
              {/each}
            </select>
          {/if}
          <TypedField
            label="{stringName(v.of.string)}, charge"
            text={joining[v.key].soc === null ? '' : fieldText(joining[v.key].soc!, 'share', 'metric')}
            placeholder={v.of.soc === null
              ? 'not told'
              : fieldText(Math.round(v.of.soc * 1000) / 1000, 'share', 'metric')}
            read={read(v.key, 'share')}
            width="70px"
            path="/joining/{v.key}/soc"
            snapshot={() => []}
          />
          <TypedField
            label="or at rest"
            text={joining[v.key].restV === null ? '' : fieldText(joining[v.key].restV!, 'voltage', 'metric')}
            placeholder={`${num(v.of.restV, 2)} V`}
            read={read(v.key, 'voltage')}
            width="74px"
            path="/joining/{v.key}/restV"
            snapshot={() => []}
          />
        </div>
      {/each}
    </div>
    <p class="moves">
      {#if j.moveAh === null}What would move cannot be told.{:else}
        <b class="fig">{say(j.moveAh, 'Ah')}</b> would move{#if j.settleH !== null && j.settleH > 0}
          , level after <b class="fig">{say(j.settleH, 'h')}</b>{/if}.{/if}
      <b class="fig">{num(j.apartV, 2)} V</b> apart, {num(j.toleranceV, 2)} allowed.
    </p>
    <p class="verdict" data-testid="join-verdict">
      <Mark kind={j.join ? 'fits' : 'wrong'} /> <b>{j.join ? 'join' : 'wait'}</b>
      <span>{j.words}.</span>
    </p>
    {#if j.instead}<p class="instead">{j.instead}.</p>{/if}
    {#if j.doubtful && j.join}<p class="caption">
        The level lies where the volts tell little: give it a day before you trust a reading.
      </p>{/if}
  </section>
{/if}

<style>
  .joining {
    font-size: 12.5px;
    min-width: 0;
  }
  h3 {
    font-weight: 700;
    font-size: 13px;
  }
  .drawing {
    width: 100%;
    max-width: 300px;
    display: block;
    margin: 4px 0;
  }
  .fill {
    fill: var(--hair);
  }
  .level {
    stroke: var(--ink);
    stroke-dasharray: 4 3;
  }
  .hand {
    fill: transparent;
    cursor: ns-resize;
    touch-action: none;
  }
  .hand:focus-visible {
    outline: 2px solid var(--copper);
  }
  .word {
    font-size: 12px;
  }
  .rush {
    font-size: 15px;
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
  }
  .fields > div {
    display: flex;
    gap: 6px;
    align-items: flex-end;
  }
  .moves {
    margin-top: 4px;
  }
  .verdict {
    margin-top: 4px;
  }
  .verdict b {
    font-size: 14px;
  }
  .instead {
    font-weight: 650;
  }
  @media (max-width: 939px) {
    .fields select {
      min-height: 44px;
    }
  }
</style>
