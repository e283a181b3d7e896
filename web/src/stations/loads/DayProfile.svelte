<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { ticks } from '../../drawing/geometry'
  import { clock, num, say } from '../../ui/quantity'

  /** The day's power: what runs as an area, starts as thin lines, the inverter's limits as lines across. */
  let { left, right }: { left: number; right: number } = $props()
  let width = $state(900)
  let height = $state(180)
  const top = 16
  const bottom = $derived(height - 18)

  const e = $derived(session.result!)
  const loads = $derived(e.loads!)
  const inverter = $derived(e.inverter)
  const worstDemand = $derived(
    inverter ? inverter.demands.find((d) => d.watts === loads.surgeDemandW && d.label.endsWith('starting')) : undefined,
  )
  const limit = $derived(worstDemand?.givesW ?? null)
  const most = $derived(
    Math.max(100, loads.surgeDemandW, loads.peakAcW, inverter?.availableContinuousW ?? 0, limit ?? 0) * 1.08,
  )
  const x = (hour: number) => left + (hour / 24) * (width - left - right)
  const y = (watts: number) => bottom - (watts / most) * (bottom - top)
  const area = $derived(
    `M${x(0)} ${bottom} ` +
      loads.profile.map((s) => `L${x(s.fromH)} ${y(s.acW)} L${x(s.toH)} ${y(s.acW)}`).join(' ') +
      ` L${x(24)} ${bottom} Z`,
  )
  const direct = $derived(
    loads.profile
      .filter((s) => s.dcW > 0)
      .map((s) => ({
        key: s.fromH,
        x: x(s.fromH),
        w: x(s.toH) - x(s.fromH),
        y: y(s.acW + s.dcW),
        h: y(s.acW) - y(s.acW + s.dcW),
      })),
  )
  const timed = $derived(new Set(session.bank!.demand.loads.map((l, i) => (l.windows ? i : -1))))
  const starts = $derived(loads.profile.filter((s) => s.surgeW > s.acW && timed.has(s.starting)))
  const anytime = $derived(loads.profile.filter((s) => s.surgeW > s.acW && !timed.has(s.starting)))
  const worst = $derived(loads.worst)
  const labelLeft = $derived(x(worst.fromH) > width * 0.62)
  const name = $derived(`Power over the day, worst ${num(loads.surgeDemandW)} W at ${clock(worst.fromH)}`)
</script>

<Drawing {name} bind:height fill floor={132} bind:width>
  {#each ticks(most, 4) as t (t)}
    <line x1={left} x2={width - right} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={left - 6} y={y(t) + 4} text-anchor="end" class="axis">{t === 0 ? '0 W' : num(t)}</text>
  {/each}
  {#each [0, 3, 6, 9, 12, 15, 18, 21, 24] as h (h)}
    <text x={x(h)} y={height - 4} text-anchor={h === 0 ? 'start' : h === 24 ? 'end' : 'middle'} class="axis"
      >{clock(h)}</text
    >
  {/each}
  {#each anytime as s (s.fromH)}
    <rect
      x={x(s.fromH)}
      y={y(s.surgeW)}
      width={x(s.toH) - x(s.fromH)}
      height={y(s.acW) - y(s.surgeW)}
      fill="none"
      stroke="var(--hair)"
    />
  {/each}
  <path d={area} fill="var(--ink-3)" stroke="var(--ink)" stroke-width="1" />
  {#each direct as d (d.key)}
    <rect x={d.x} y={d.y} width={d.w} height={d.h} fill="var(--sheet)" stroke="var(--ink)" />
  {/each}
  {#each starts as s (s.fromH)}
    <line x1={x(s.fromH)} x2={x(s.fromH)} y1={y(s.acW)} y2={y(s.surgeW)} stroke="var(--ink)" stroke-width="1.5" />
  {/each}
  {#if inverter?.availableContinuousW}
    <line
      x1={left}
      x2={width - right}
      y1={y(inverter.availableContinuousW)}
      y2={y(inverter.availableContinuousW)}
      stroke="var(--ink)"
      stroke-width="1.5"
    />
    <FigText
      ptr="/inverter/availableContinuousW"
      unit="W"
      label="inverter all day"
      x={left + 4}
      y={y(inverter.availableContinuousW) - 4}
      size={13}
      after="inverter, all day"
    />
  {/if}
  {#if limit && inverter && limit > (inverter.availableContinuousW ?? 0)}
    <line x1={left} x2={width - right} y1={y(limit)} y2={y(limit)} stroke="var(--ink)" stroke-dasharray="5 3" />
    <FigText
      ptr="/inverter/demands/{inverter.demands.indexOf(worstDemand!)}/givesW"
      unit="W"
      label="inverter for so long"
      x={left + 4}
      y={y(limit) - 4}
      size={13}
      after="inverter for {say(worst.startSeconds, 's')}"
    />
  {/if}
  {#if loads.surgeDemandW > 0}
    <line
      x1={x(worst.fromH)}
      x2={x(worst.fromH)}
      y1={y(loads.surgeDemandW)}
      y2={bottom}
      stroke="var(--copper)"
      stroke-dasharray="2 2"
    />
    <circle cx={x(worst.fromH)} cy={y(loads.surgeDemandW)} r="4" fill="none" stroke="var(--ink)" stroke-width="1.5" />
    <FigText
      ptr="/loads/surgeDemandW"
      unit="W"
      label="worst instant"
      x={x(worst.fromH) + (labelLeft ? -9 : 9)}
      y={y(loads.surgeDemandW) + 5}
      anchor={labelLeft ? 'end' : 'start'}
      size={17}
      after="at {clock(worst.fromH)}{worst.starting ? `, ${worst.starting} starting` : ''}"
    />
  {/if}
</Drawing>

<style>
  .axis {
    font-size: 11px;
    fill: var(--ink-3);
  }
</style>
