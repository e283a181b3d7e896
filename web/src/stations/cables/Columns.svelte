<script lang="ts">
  import FigText from '../../drawing/FigText.svelte'
  import { ticks } from '../../drawing/geometry'
  import { num, say } from '../../ui/quantity'
  import type { Column } from './loop'

  /** The elevation: copper as the outline, the load filled, the fuse as a line; what is out of order in solid ink. */
  interface Props {
    columns: (Column & { x1: number; x2: number })[]
    left: number
    end: number
    base: number
    narrow: boolean
  }
  let { columns, left, end, base, narrow }: Props = $props()
  const top = 26
  const most = $derived(Math.max(1, ...columns.flatMap((c) => [c.load, c.fuse, c.copper])) * 1.12)
  const y = (amps: number) => base - (amps / most) * (base - top)
  const run = $derived(columns.at(-1)!)
  const inside = $derived(columns.slice(0, -1))
  const over = (c: Column) => c.fuse > c.copper * 1.0000001 && c.copper > 0
  /** Whether what the fuse lets through above the copper is too thin a strip for its label. */
  const thin = (c: Column) => y(c.copper) - y(c.fuse) < 19
  const unit = (amps: number) => (Number.isInteger(amps) ? 'rating' : 'A')
  const near = (a: number, b: number) => Math.abs(y(a) - y(b)) < 17
</script>

{#each ticks(most, 4) as t (t)}
  <line x1={left} x2={end} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
  <text x={left - 6} y={y(t) + 4} text-anchor="end" class="fig">{num(t)}{t === 0 ? ' A' : ''}</text>
{/each}
{#each columns as c (c.key)}
  <rect x={c.x1} y={y(c.copper)} width={c.x2 - c.x1} height={base - y(c.copper)} fill="var(--tint)" />
  <rect x={c.x1} y={y(c.load)} width={c.x2 - c.x1} height={base - y(c.load)} fill="var(--copper)" />
  <path d="M{c.x1} {base} V{y(c.copper)} H{c.x2} V{base}" fill="none" stroke="var(--copper)" stroke-width="2.5" />
  {#if over(c)}
    <rect x={c.x1} y={y(c.fuse)} width={c.x2 - c.x1} height={y(c.copper) - y(c.fuse)} fill="var(--ink)" />
    <text
      x={(c.x1 + c.x2) / 2}
      y={thin(c) ? y(c.copper) + 16 : (y(c.fuse) + y(c.copper)) / 2 + 5}
      text-anchor="middle"
      class={['fig over', thin(c) && 'below']}
      data-testid="over">{say(c.fuse - c.copper, 'A')}{c.x2 - c.x1 > 70 ? ' over' : ''}</text
    >
  {/if}
  {#if c.fuse > 0 && c.load > c.fuse}
    <rect x={c.x1} y={y(c.load)} width={c.x2 - c.x1} height={y(c.fuse) - y(c.load)} fill="var(--ink)" />
  {/if}
  {#if c.fuse > 0}<line x1={c.x1} x2={c.x2} y1={y(c.fuse)} y2={y(c.fuse)} stroke="var(--ink)" stroke-width="2" />{/if}
{/each}
<line x1={left} x2={end} y1={base} y2={base} stroke="var(--ink)" />
{#each inside as c (c.key)}
  {@const x = (c.x1 + c.x2) / 2}
  {#if c.copperPtr && !over(c)}
    <FigText
      ptr={c.copperPtr}
      unit={unit(c.copper)}
      label="{c.name} carries"
      {x}
      y={y(c.copper) - 5}
      anchor="middle"
      size={13.5}
    />
  {/if}
  {#if c.fusePtr && !over(c) && !near(c.fuse, c.copper) && !near(c.fuse, c.load)}
    <FigText
      ptr={c.fusePtr}
      unit="A"
      label="{c.name} while the fuse holds"
      {x}
      y={y(c.fuse) - 4}
      anchor="middle"
      size={12}
    />
  {/if}
  {#if c.loadPtr}
    {@const tall = base - y(c.load) > 20}
    <FigText
      ptr={c.loadPtr}
      unit="A"
      label="{c.name} at full load"
      {x}
      y={tall ? y(c.load) + 15 : (near(c.fuse, c.load) ? y(c.fuse) : y(c.load)) - 4}
      anchor="middle"
      size={13.5}
      fill={tall ? 'var(--on-copper)' : 'var(--ink)'}
    />
  {:else}
    <text {x} y={base - 6} text-anchor="middle" class="on-copper">{c.name}</text>
  {/if}
{/each}
{#if run.copper > 0}<FigText
    ptr={run.copperPtr!}
    unit={unit(run.copper)}
    label="copper carries"
    x={end - 6}
    y={y(run.copper) + (over(run) ? 15 : -5)}
    anchor="end"
    size={15}
    after="copper carries"
  />{/if}
{#if run.fuse > 0}
  {@const beneath = run.copper >= run.fuse && near(run.fuse, run.copper)}
  {@const beside = beneath && y(run.load) - y(run.fuse) < 18}
  <FigText
    ptr={run.fusePtr!}
    unit="rating"
    label="fuse passes"
    x={end - 6 - (beside ? (narrow ? 128 : 150) : 0)}
    y={beneath && !beside ? y(run.fuse) + 15 : y(run.fuse) - 5}
    anchor="end"
    size={15}
    give
    after={narrow ? 'fuse' : 'fuse passes'}
  />
{/if}
{#if run.loadPtr}
  {@const tall = base - y(run.load) > 22}
  {@const close = !tall && run.fuse > 0 && near(run.fuse, run.load)}
  <FigText
    ptr={run.loadPtr}
    unit="A"
    label="load"
    x={end - 6 - (close ? (narrow ? 90 : 130) : 0)}
    y={tall ? y(run.load) + 18 : (close ? y(run.fuse) - 1 : y(run.load)) - 4}
    anchor="end"
    size={16}
    give
    fill={tall ? 'var(--on-copper)' : 'var(--ink)'}
    after={tall ? '' : 'load'}
  />
{/if}

<style>
  .over {
    fill: var(--sheet);
    stroke: none;
    font-size: 14px;
  }
  .below.over {
    fill: var(--ink);
  }
  .on-copper {
    fill: var(--on-copper);
    stroke: none;
    font-size: 13px;
  }
</style>
