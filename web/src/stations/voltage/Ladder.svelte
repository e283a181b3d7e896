<script lang="ts">
  import type { LadderRung } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import Copper from '../../drawing/Copper.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { diameterMm, step125, ticks } from '../../drawing/geometry'
  import { num, say } from '../../ui/quantity'
  import LimitLine from './LimitLine.svelte'

  /** Amps across, volts up: a rung is as long as its current and as thick as its copper, and ends on the curve of constant power. */
  let { rungs, height }: { rungs: LadderRung[]; height: number } = $props()
  let width = $state(520)

  const [left, top] = [46, 30]
  const bottom = $derived(height - 30)
  const shown = $derived(rungs.filter((r) => r.bus.amps !== null))
  const limit = $derived(session.result!.voltage!.advice.limitA)
  const here = $derived(shown.find((r) => r.here))
  const mostA = $derived(Math.max(limit, ...shown.map((r) => r.bus.amps!)) * 1.14)
  const mostV = $derived(Math.max(...shown.map((r) => r.bus.powerW! / r.bus.amps!)) * 1.12)
  const x = (amps: number) => left + (amps / mostA) * (width - left - 12)
  const amps = (px: number) => ((px - left) / (width - left - 12)) * mostA
  const y = (volts: number) => bottom - (volts / mostV) * (bottom - top)
  const lowV = (r: LadderRung) => r.bus.powerW! / r.bus.amps!
  const pxPerMm = $derived(
    step125(
      22 /
        Math.max(
          1,
          ...shown.map((r) => (r.cable.areaMm2 ? diameterMm(r.cable.areaMm2) * (r.cable.conductors ?? 1) : 1)),
        ),
    ),
  )
  /** Where no rung is: halfway between the two highest, its own words find room there [V]. */
  const labelV = $derived.by(() => {
    const volts = shown.map(lowV).sort((a, b) => b - a)
    return volts.length > 1 ? (volts[0] + volts[1]) / 2 : mostV / 2
  })
  /** A curve of constant power for each watts there are: another inverter is another curve. */
  const curves = $derived.by(() => {
    const powers: number[] = []
    for (const r of [...shown].sort((a, b) => Number(b.here) - Number(a.here)))
      if (!powers.some((p) => Math.abs(p - r.bus.powerW!) < 0.04 * p)) powers.push(r.bus.powerW!)
    return powers.map((watts) => {
      const points: string[] = []
      for (let i = 0; i <= 80; i++) {
        const amps = watts / mostV + (i / 80) * (mostA - watts / mostV)
        if (amps > 0) points.push(`${x(amps)} ${y(watts / amps)}`)
      }
      return { watts, d: 'M' + points.join(' L') }
    })
  })
</script>

<Drawing name="Current at each system voltage" {height} bind:width least={340}>
  <rect x={x(limit)} y={top} width={Math.max(0, width - 12 - x(limit))} height={bottom - top} fill="var(--page)" />
  <path d="M{left} {top} V{bottom} H{width - 12}" fill="none" stroke="var(--ink)" />
  {#each ticks(mostA, 6) as a (a)}
    <path d="M{x(a)} {bottom} v4" stroke="var(--ink)" />
    <text x={x(a)} y={bottom + 17} text-anchor="middle" class="fig">{num(a)}{a === 0 ? ' A' : ''}</text>
  {/each}
  {#each curves as c, n (c.watts)}
    <path
      d={c.d}
      fill="none"
      stroke={n === 0 ? 'var(--ink)' : 'var(--ink-3)'}
      stroke-dasharray={n === 0 ? undefined : '2 3'}
    />
    {#if n > 0}
      {@const at = labelV + mostV * 0.055 * (n % 2 ? 1 : -1)}
      <text x={x(c.watts / at) + 8} y={y(at)} class="faint">{num(c.watts)} W</text>
    {/if}
  {/each}
  {#each shown as r (r.systemV)}
    {@const cy = y(lowV(r))}
    {@const cx = x(r.bus.amps!)}
    {#if r.cable.areaMm2}
      <Copper
        x1={left}
        y1={cy}
        x2={cx}
        y2={cy}
        thick={diameterMm(r.cable.areaMm2) * pxPerMm}
        conductors={r.cable.conductors ?? 1}
        share={r.cable.ampacityA ? r.bus.amps! / r.cable.ampacityA : 0.9}
      />
    {:else}
      <line x1={left} x2={cx} y1={cy} y2={cy} stroke="var(--ink)" stroke-width="2" stroke-dasharray="3 3" />
    {/if}
    <circle {cx} {cy} r="4" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1.5" />
    <text
      x={left - 8}
      y={cy + 6}
      text-anchor="end"
      class="fig"
      style:font-size="18px"
      style:font-weight={r.here ? 750 : 500}>{r.systemV}</text
    >
    {@const flip = cx > width - 150}
    {#if r.here}
      <FigText
        ptr="/currents/bankWorstA"
        unit="A"
        label="at full load, {r.systemV} V"
        x={flip ? cx - 10 : cx + 12}
        y={flip ? cy - 16 : cy - 8}
        anchor={flip ? 'end' : 'start'}
        size={22}
      />
    {:else}
      <text
        x={flip ? cx - 10 : cx + 12}
        y={flip ? cy - 16 : cy - 6}
        text-anchor={flip ? 'end' : 'start'}
        class="fig stop"
        style:font-size="18px"
        role="button"
        tabindex="-1"
        data-stop
        aria-label="at {r.systemV} V: {say(r.bus.amps!, 'A')}. Show its working"
        onclick={() =>
          session.select('/currents/bankWorstA', false, { label: `at ${r.systemV} V`, changes: r.changes })}
        onkeydown={() => {}}>{say(r.bus.amps!, 'A')}</text
      >
    {/if}
    {#if !r.cable.size}<text x={cx - 10} y={cy + 18} text-anchor="end">no cable of the table</text>{/if}
  {/each}
  <LimitLine {limit} {x} {amps} {top} {bottom} room={width - 12 - x(limit)} />
  <text x={left + 6} y={top + 4} data-give>volts</text>
  {#if here}<text x={width - 16} y={bottom - 8} text-anchor="end" class="faint"
      >on the curve volts × amps = {num(here.bus.powerW!)} W; {pxPerMm} px a mm of copper</text
    >{/if}
</Drawing>

<style>
  .stop {
    cursor: pointer;
  }
  .faint {
    fill: var(--ink-2);
  }
</style>
