<script lang="ts">
  import { session } from '../app/session.svelte'
  import { cut } from '../drawing/geometry'
  import { num, say, sayVolts, sizeName } from '../ui/quantity'

  /** The wiring with one line for both poles: bank, fuse, disconnect, bus, and every run from it with its fuse and cable. */
  const e = $derived(session.result!)
  const r = $derived(e.mainRun!)
  const b = $derived(e.bank)
  const onward = $derived(e.circuits.find((c) => c.kind === 'inverter') ?? null)
  const inverterOn = $derived(e.inverter?.item ? e.inverter : null)
  const MOST = 9
  const rows = $derived(e.circuits.filter((c) => c.kind !== 'inverter'))
  const shown = $derived(rows.slice(0, MOST))
  const busX = 330
  const top = 26
  const step = 22
  const count = $derived(shown.length + (inverterOn ? 1 : 0) + (rows.length > MOST ? 1 : 0))
  const height = $derived(Math.max(84, top + count * step + 4))
  const cable = (run: typeof r) => (run.cable.size ? sizeName(run.cable.size, run.cable.conductors) : 'no cable')
  const fuse = (run: typeof r) => (run.fuse.ratingA ? say(run.fuse.ratingA, 'rating') : 'no fuse')
  const metres = (m: number) => say(m, 'm', session.units)
</script>

{#snippet box(x: number, y: number, kind: 'fuse' | 'switch')}
  <rect x={x - 11} y={y - 8} width="22" height="16" fill="#fff" stroke="#000" />
  {#if kind === 'fuse'}<line x1={x - 11} x2={x + 11} y1={y} y2={y} stroke="#000" stroke-width="1.5" />
  {:else}<path d="M{x - 8} {y + 3} h3 l9 -6 M{x + 5} {y + 3} h3" fill="none" stroke="#000" stroke-width="1.5" />{/if}
{/snippet}

<svg width="718" {height} viewBox="0 0 718 {height}" role="img" aria-label="One-line wiring">
  <rect x="1" y="8" width="128" height="52" fill="#fff" stroke="#000" stroke-width="1.3" />
  <text x="8" y="24" class="fig">{b ? `${b.layout.series}S${b.layout.parallel}P` : 'no unit yet'}</text>
  <text x="8" y="38">{b ? cut(b.unit.name, 19) : ''}</text>
  <text x="8" y="52"
    >{sayVolts(e.voltage!.nominalV)}{e.stringFuses?.fitted && e.stringFuses.ratingA
      ? `, ${num(e.stringFuses.ratingA)} A a string`
      : ''}</text
  >
  <line x1="129" x2={busX} y1={top} y2={top} stroke="#000" stroke-width="2.5" />
  {#if r.fuse.ratingA}{@render box(166, top, 'fuse')}{/if}
  <text x="166" y="13" text-anchor="middle" class="fig">{fuse(r)}</text>
  {#if e.bus?.hasSwitch}{@render box(224, top, 'switch')}<text x="224" y="13" text-anchor="middle">disconnect</text
    >{/if}
  <text x="322" y={top + 16} text-anchor="end">{cable(r)}, {metres(r.laid.lengthM)}</text>
  <text x="136" y={top + 30} class="faint">negatives back through one shunt;</text>
  <text x="136" y={top + 43} class="faint"
    >{e.bonding && !e.bonding.absent ? `bonding ${e.bonding.size} from the negative bus` : 'no bonding conductor'}</text
  >
  <line x1={busX} x2={busX} y1={top - 8} y2={top + Math.max(0, count - 1) * step + 8} stroke="#000" stroke-width="5" />
  {#if inverterOn}
    <line x1={busX} x2="520" y1={top} y2={top} stroke="#000" stroke-width="2.5" />
    {#if onward?.run.fuse.ratingA}{@render box(368, top, 'fuse')}{/if}
    <text x="386" y={top - 5}
      >{onward
        ? `${fuse(onward.run)}, ${cable(onward.run)}, ${metres(onward.run.laid.lengthM)}`
        : 'the main run goes on'}</text
    >
    <text x="526" y={top + 4}>{inverterOn.stack > 1 ? `${inverterOn.stack} × ` : ''}{cut(inverterOn.name, 30)}</text>
  {/if}
  {#each shown as c, i (c.id)}
    {@const y = top + (i + (inverterOn ? 1 : 0)) * step}
    {@const behind = c.upstream !== null}
    <line
      x1={behind ? busX + 14 : busX}
      x2="520"
      y1={y}
      y2={y}
      stroke="#000"
      stroke-width="1.3"
      stroke-dasharray={behind ? '4 3' : undefined}
    />
    {#if c.run.fuse.ratingA}{@render box(368, y, 'fuse')}{/if}
    <text x="386" y={y - 4}><tspan class="fig">{fuse(c.run)}</tspan>, {cable(c.run)}, {metres(c.run.laid.lengthM)}</text
    >
    <text x="526" y={y + 4}>{cut(c.name, 24)}, {say(c.run.designA, 'A')}{c.kind === 'charge' ? ' in' : ''}</text>
  {/each}
  {#if rows.length > MOST}<text x="526" y={top + (count - 1) * step + 4} class="faint"
      >and {rows.length - MOST} more, in the lists</text
    >{/if}
</svg>

<style>
  svg {
    display: block;
  }
  svg text {
    font-size: 11px;
    fill: #000;
  }
  svg .faint {
    fill: #333;
  }
</style>
