<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import { num } from '../../ui/quantity'
  import { bench } from './bench.svelte'
  import { MONTHS, WHOLE } from './months'

  /** A bar a month: the balance of its mean day without plug and generator. Up is surplus, solid down is missing. */
  let { left, right, narrow }: { left: number; right: number; narrow: boolean } = $props()
  let width = $state(600)
  const charging = $derived(bench.charging!)
  const months = $derived(charging.months)
  const [top, room] = [15, 26]
  const most = $derived(Math.max(1, ...months.map((m) => Math.abs(m.withoutPlugWh))))
  const up = $derived(Math.max(0, ...months.map((m) => m.withoutPlugWh)))
  const down = $derived(Math.max(0, ...months.map((m) => -m.withoutPlugWh)))
  const scale = $derived(room / Math.max(1, up + down))
  const zero = $derived(top + up * scale)
  const pitch = $derived((width - left - right) / 12)
  const x = (i: number) => left + (i + 0.5) * pitch
  /** Small balances would all be nought in kilowatt-hours. */
  const small = $derived(most < 1000)
  const told = (wh: number) =>
    `${wh < 0 ? '−' : wh > 0 ? '+' : ''}${small ? num(Math.abs(wh)) : num(Math.abs(wh) / 1000, 1)}`

  function key(e: KeyboardEvent) {
    const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0
    if (by === 0) return
    e.preventDefault()
    e.stopPropagation()
    bench.pickMonth(bench.month! + 1 + by)
  }
</script>

<Drawing name="Balance of each month, without plug and generator" bind:width height={74}>
  {#if !narrow}
    <text x="0" y="12" class="side">without</text>
    <text x="0" y="26" class="side">the plug,</text>
    <text x="0" y="40" class="side">{small ? 'Wh' : 'kWh'} a day</text>
  {/if}
  <line x1={left} x2={width - right} y1={zero} y2={zero} stroke="var(--ink)" />
  {#each months as m, i (m.month)}
    {@const wh = m.withoutPlugWh}
    {@const tall = Math.max(wh === 0 ? 0 : 1, (Math.abs(wh) / most) * most * scale)}
    {@const picked = bench.month === i}
    <g
      role="button"
      tabindex="-1"
      data-stop
      data-month={m.month}
      data-held={picked ? '' : undefined}
      aria-pressed={picked}
      aria-label="{WHOLE[i]}: {told(wh)} {small ? 'Wh' : 'kWh'} a day {wh < 0 ? 'are missing' : 'to spare'}"
      class="month"
      onclick={() => bench.pickMonth(m.month)}
      onkeydown={key}
    >
      {#if picked}
        <rect
          x={x(i) - pitch / 2 + 1}
          y="1"
          width={pitch - 2}
          height="72"
          fill="var(--tint)"
          stroke="var(--copper)"
          stroke-width="1.5"
        />
        <line x1={x(i) - pitch / 2 + 2} x2={x(i) + pitch / 2 - 2} y1={zero} y2={zero} stroke="var(--ink)" />
      {:else}
        <rect x={x(i) - pitch / 2} y="0" width={pitch} height="74" fill="transparent" />
      {/if}
      <rect
        x={x(i) - Math.min(9, pitch / 3)}
        y={wh < 0 ? zero : zero - tall}
        width={Math.min(18, (pitch * 2) / 3)}
        height={tall}
        fill={wh < 0 ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
      />
    </g>
    <text
      x={x(i)}
      y={wh < 0 ? zero - 4 : zero - tall - 4}
      text-anchor="middle"
      pointer-events="none"
      class={['fig value', picked && 'on']}
      style:--ground={picked ? 'var(--tint)' : undefined}>{told(wh)}</text
    >
    <text
      x={x(i)}
      y="69"
      text-anchor="middle"
      pointer-events="none"
      class={['name', picked && 'on']}
      style:--ground={picked ? 'var(--tint)' : undefined}>{pitch < 30 ? MONTHS[i][0] : MONTHS[i]}</text
    >
  {/each}
</Drawing>

<style>
  .side {
    fill: var(--ink-2);
  }
  .month {
    cursor: pointer;
  }
  .value {
    font-size: 11px;
  }
  .name {
    font-size: 12px;
  }
  .on {
    font-weight: 700;
  }
  g:focus-visible {
    outline: 2px solid var(--ink);
    outline-offset: -2px;
  }
</style>
