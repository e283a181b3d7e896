<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { cut, ticks } from '../../drawing/geometry'
  import { clock, num, say } from '../../ui/quantity'
  import type { DayAxis } from '../../ui/dayAxis'
  import { layers } from './stack'

  /** The day's power: each load a layer, starts as thin lines, the inverter's limits as lines across, the worst instant named. */
  interface Props {
    axis: DayAxis
    season: 'both' | 'winter' | 'summer'
    narrow: boolean
    /** The hour that is to be looked at closely. */
    onlook: (hour: number) => void
  }
  let { axis, season, narrow, onlook }: Props = $props()
  let width = $state(900)
  let height = $state(180)
  const top = 18
  const bottom = $derived(height - 18)
  const right = $derived(axis.left + axis.width)

  const e = $derived(session.result!)
  const loads = $derived(e.loads!)
  const inverter = $derived(e.inverter)
  const nth = $derived(loads.seasons.findIndex((s) => s.season === season))
  const day = $derived(nth >= 0 ? loads.seasons[nth] : loads)
  const at = $derived(nth >= 0 ? `/loads/seasons/${nth}` : '/loads')
  const profile = $derived(loads.profile.map((s, i) => ({ ...s, i })).filter((s) => s.season === season))
  const worst = $derived(day.worst)
  const worstDemand = $derived(inverter?.demands.find((d) => d.watts === day.surgeDemandW && d.isStart))
  const limit = $derived(worstDemand?.givesW ?? null)
  const demand = $derived(session.bank!.demand)
  /** One figure, or states, stand as one load that is on at any time. */
  const drawn = $derived(
    demand.by === 'loads'
      ? demand.loads
      : loads.rows.map((r) => ({ ...r, season: 'both' as const, windows: null, hours: r.hoursOn })),
  )
  const stack = $derived(layers(drawn, loads.rows, season))
  const most = $derived(
    Math.max(
      100,
      day.surgeDemandW,
      ...profile.map((s) => s.acW + s.dcW),
      inverter?.gives.continuousW ?? 0,
      limit ?? 0,
    ) * 1.1,
  )
  const x = (hour: number) => axis.x(hour)
  const y = (watts: number) => bottom - (watts / most) * (bottom - top)
  const shapes = $derived(
    stack.map((layer, n) => ({
      ...layer,
      shade: n % 3,
      d: layer.parts.map((p) => `M${x(p.from)} ${y(p.bottom)}V${y(p.top)}H${x(p.to)}V${y(p.bottom)}`).join(''),
      label: layer.parts
        .map((p) => ({ p, room: x(p.to) - x(p.from), tall: y(p.bottom) - y(p.top) }))
        .filter(({ room, tall }) => tall >= 13 && room >= 44)
        .sort((a, b) => b.room * b.tall - a.room * a.tall)[0],
    })),
  )
  const timed = $derived(new Set(drawn.map((l, i) => (l.windows ? i : -1))))
  const starts = $derived(profile.filter((s) => s.surgeW > s.acW && timed.has(s.starting)))
  const anytime = $derived(profile.filter((s) => s.surgeW > s.acW && !timed.has(s.starting)))
  const labelLeft = $derived(x(worst.fromH) > axis.left + axis.width * 0.55)
  // Where nothing passes the inverter, the most on DC at once is what is looked for.
  const direct = $derived(day.surgeDemandW > 0 ? null : profile.reduce((a, b) => (b.dcW > a.dcW ? b : a), profile[0]))
  const room = $derived(
    Math.max(12, Math.floor((labelLeft ? x(worst.fromH) - axis.left : right - x(worst.fromH)) / 6) - 2),
  )
  const with_ = $derived(worst.loads.filter((n) => n !== worst.starting))
  const others = $derived(
    [
      worst.starting && narrow ? `${worst.starting} starting,` : '',
      with_.length > 0 ? `with ${with_.join(', ')}` : 'nothing else on',
    ]
      .filter(Boolean)
      .join(' '),
  )
  /** The same all day: no hour is worse than another. */
  const anyTime = $derived(profile.length === 1)
  const when = $derived(anyTime ? 'at any time' : `at ${clock(worst.fromH)}`)
  const name = $derived(
    `Power over the day, ${day.surgeDemandW > 0 ? `worst ${num(day.surgeDemandW)} W ${when}: ${worst.starting ? `${worst.starting} starting, ` : ''}${with_.length > 0 ? `with ${with_.join(', ')}` : 'nothing else on'}` : `${num(day.peakDcW)} W of DC at once`}`,
  )
  const limitsLeft = $derived(labelLeft || x(worst.fromH) - axis.left > 160)
  const lookText = $derived(
    axis.stretched === Math.floor(worst.fromH)
      ? 'the whole day again'
      : `look closer at ${clock(Math.floor(worst.fromH))}`,
  )
  const side = $derived(labelLeft ? -9 : 9)
  const anchor = $derived(labelLeft ? 'end' : 'start')
  // Low points are written above themselves, high ones beside and below.
  const low = $derived(y(day.surgeDemandW) > (top + bottom) / 2)
  const written = $derived(narrow || anyTime ? [0, 15] : [0, 15, 33])
  const label = $derived.by(() => {
    const at = low ? y(day.surgeDemandW) - 11 - written.at(-1)! : Math.max(top + 8, y(day.surgeDemandW) + 5)
    const lines = [inverter?.gives.continuousW, limit].filter((w) => w != null).map((w) => y(w!))
    // A little up or down, until neither limit runs through the letters.
    const clear = (from: number) => lines.every((l) => written.every((row) => Math.abs(from + row - 4 - l) > 8))
    return [0, 6, -6, 12, -12, 18, -18, 24].map((d) => at + d).find((from) => from >= top + 6 && clear(from)) ?? at
  })
</script>

<Drawing {name} bind:height fill floor={narrow ? 230 : 150} bind:width>
  <defs>
    <pattern id="direct" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <rect width="6" height="6" fill="var(--sheet)" /><line x1="0" x2="0" y1="0" y2="6" stroke="var(--ink-3)" />
    </pattern>
  </defs>
  {#each ticks(most, 4) as t (t)}
    <line x1={axis.left} x2={right} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={axis.left - 6} y={y(t) + 4} text-anchor="end" class="axis">{t === 0 ? '0 W' : num(t)}</text>
  {/each}
  {#each axis.ticks() as h (h)}
    <text x={x(h)} y={height - 4} text-anchor={h === 0 ? 'start' : h === 24 ? 'end' : 'middle'} class="axis"
      >{clock(h)}</text
    >
  {/each}
  {#each anytime as s (s.i)}
    <rect
      x={x(s.fromH)}
      y={y(s.surgeW)}
      width={x(s.toH) - x(s.fromH)}
      height={y(s.acW) - y(s.surgeW)}
      fill="none"
      stroke="var(--hair)"
    />
  {/each}
  {#each shapes as s (s.key)}
    <path d={s.d} class={s.direct ? 'direct' : `shade-${s.shade}`} data-layer={s.name} />
  {/each}
  <line x1={axis.left} x2={right} y1={bottom} y2={bottom} stroke="var(--ink)" />
  {#each shapes as s (s.key)}
    {#if s.label}
      <text
        x={(x(s.label.p.from) + x(s.label.p.to)) / 2}
        y={(y(s.label.p.top) + y(s.label.p.bottom)) / 2 + 4}
        text-anchor="middle"
        data-give
        class="layer">{cut(s.name, Math.floor(s.label.room / 6.4))}</text
      >
    {/if}
  {/each}
  {#each starts as s (s.i)}
    <line x1={x(s.fromH)} x2={x(s.fromH)} y1={y(s.acW)} y2={y(s.surgeW)} stroke="var(--ink)" stroke-width="1.5" />
  {/each}
  {#if inverter?.gives.continuousW}
    <line
      x1={axis.left}
      x2={right}
      y1={y(inverter.gives.continuousW)}
      y2={y(inverter.gives.continuousW)}
      stroke="var(--ink)"
      stroke-width="1.5"
    />
    <FigText
      ptr="/inverter/gives/continuousW"
      unit="W"
      label="inverter all day"
      x={limitsLeft ? axis.left + 4 : right - 4}
      y={y(inverter.gives.continuousW) - 4}
      anchor={limitsLeft ? 'start' : 'end'}
      size={13}
      give
      after={narrow ? 'all day' : 'inverter, all day'}
    />
  {/if}
  {#if limit && inverter && limit > (inverter.gives.continuousW ?? 0)}
    <line x1={axis.left} x2={right} y1={y(limit)} y2={y(limit)} stroke="var(--ink)" stroke-dasharray="5 3" />
    <FigText
      ptr="/inverter/demands/{inverter.demands.indexOf(worstDemand!)}/givesW"
      unit="W"
      label="inverter for so long"
      x={limitsLeft ? axis.left + 4 : right - 4}
      y={y(limit) - 4}
      anchor={limitsLeft ? 'start' : 'end'}
      size={13}
      give
      after="{narrow ? '' : 'inverter '}for {say(worst.startSeconds, 's')}"
    />
  {/if}
  {#if day.surgeDemandW > 0}
    <line
      x1={x(worst.fromH)}
      x2={x(worst.fromH)}
      y1={y(day.surgeDemandW)}
      y2={bottom}
      stroke="var(--ink)"
      stroke-dasharray="2 2"
    />
    <circle cx={x(worst.fromH)} cy={y(day.surgeDemandW)} r="4" fill="none" stroke="var(--ink)" stroke-width="1.5" />
    <FigText
      ptr="{at}/surgeDemandW"
      unit="W"
      label="worst instant"
      x={x(worst.fromH) + side}
      y={label}
      {anchor}
      size={17}
      after="{when}{worst.starting && !narrow ? `, ${cut(worst.starting, Math.max(8, room - 26))} starting` : ''}"
    />
    <text x={x(worst.fromH) + side} y={label + 15} text-anchor={anchor} class="with" data-give>{cut(others, room)}</text
    >
    <!-- On a phone the choice of the paper does it. -->
    {#if !narrow && !anyTime}
      <g
        role="button"
        tabindex="-1"
        data-stop
        data-give
        aria-label={lookText}
        class="look"
        onclick={() => onlook(Math.floor(worst.fromH))}
        onkeydown={() => {}}
      >
        <rect
          x={x(worst.fromH) + side - (labelLeft ? 120 : 0)}
          y={label + 18}
          width="120"
          height="24"
          fill="transparent"
        />
        <text x={x(worst.fromH) + side} y={label + 33} text-anchor={anchor}>{lookText}</text>
      </g>
    {/if}
  {:else if direct && day.peakDcW > 0}
    {@const middle = x((direct.fromH + direct.toH) / 2)}
    <FigText
      ptr="{at}/peakDcW"
      unit="W"
      label="most on DC at once"
      x={Math.min(right - 90, Math.max(axis.left + 90, middle))}
      y={y(direct.acW + direct.dcW) - 6}
      anchor="middle"
      size={17}
      after="at once {anyTime ? 'at any time' : `from ${clock(direct.fromH)}`}"
    />
  {/if}
</Drawing>

<style>
  .axis {
    font-size: 11px;
    fill: var(--ink-3);
  }
  .shade-0 {
    fill: var(--grid);
    stroke: var(--ink);
  }
  .shade-1 {
    fill: var(--hair);
    stroke: var(--ink);
  }
  .shade-2 {
    fill: var(--page);
    stroke: var(--ink);
  }
  .direct {
    fill: url(#direct);
    stroke: var(--ink);
  }
  .layer,
  .with {
    font-size: 11.5px;
    pointer-events: none;
  }
  .with {
    fill: var(--ink-2);
  }
  .layer,
  .with,
  .look text {
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3px;
  }
  .look text {
    font-size: 11.5px;
    font-weight: 600;
    fill: var(--copper-text);
    text-decoration: underline;
  }
  .look {
    cursor: pointer;
  }
</style>
