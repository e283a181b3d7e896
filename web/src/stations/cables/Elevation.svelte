<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Copper from '../../drawing/Copper.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import FigText from '../../drawing/FigText.svelte'
  import { diameterMm, step125, ticks } from '../../drawing/geometry'
  import { num, say, stringName } from '../../ui/quantity'

  /** The loop unrolled: load, fuse and copper must rise in that order; beneath it the volts that are lost on the way. */
  let height = $state(260)
  let width = $state(900)
  const e = $derived(session.result!)
  const r = $derived(e.mainRun!)
  const n = $derived(e.network)
  const p = $derived(e.protection)
  const v = $derived(e.voltage!)

  const [left, right, top] = [52, 12, 26]
  const narrow = $derived(width < 560)
  const base = $derived(Math.round(height * 0.46))
  const joined = $derived(n !== null && n.shares.length > 1)
  const bars = $derived(n?.style === 'bus-bars')
  const conductor = $derived(n ? (bars ? n.lead : n.link) : null)
  const inLinks = $derived(n ? (bars ? n.worstA : Math.max(0, ...n.positiveLinksA, ...n.negativeLinksA)) : 0)
  const post = $derived(joined ? left + Math.max(96, (width - left) * 0.17) : left)
  const end = $derived(width - right)
  const fuseAt = $derived(post + (r.fuseDistanceM / r.lengthM) * (end - post))
  const most = $derived(
    Math.max(
      r.designA,
      r.ratingA ?? 0,
      r.ampacityA ?? 0,
      conductor?.ampacityA ?? 0,
      joined ? (n?.linkWorstA ?? 0) : 0,
    ) * 1.12,
  )
  const y = (amps: number) => base - (amps / most) * (base - top)
  const parts = $derived([
    ...(joined && conductor
      ? [{ key: 'links', x1: left, x2: post, load: inLinks, fuse: n!.linkWorstA, copper: conductor.ampacityA }]
      : []),
    { key: 'run', x1: post, x2: end, load: r.designA, fuse: r.ratingA ?? 0, copper: r.ampacityA ?? 0 },
  ])
  /** Whether what the fuse lets through above the copper is too thin a strip for its label. */
  const thinStrip = (part: { fuse: number; copper: number }) => y(part.copper) - y(part.fuse) < 19
  const plus = $derived(base + 34)
  const minus = $derived(height - 18)
  const pxPerMm = $derived(step125(18 / (diameterMm(r.areaMm2 ?? 16) * r.conductors)))
  const thick = $derived(r.areaMm2 ? diameterMm(r.areaMm2) * pxPerMm : 3)
  const share = $derived(r.ampacityA ? r.designA / r.ampacityA : 0)
  const linkShare = $derived(conductor && conductor.ampacityA > 0 ? inLinks / conductor.ampacityA : 0)
  const strings = $derived(joined ? Array.from({ length: Math.min(n!.shares.length, 6) }, (_, i) => i) : [0])
  const dot = (i: number) => post - (i / Math.max(1, strings.length - 1)) * (post - left - 10)
  // The wedge: volts lost on each pole, drawn so that twice the limit would fill the gap.
  const gap = $derived(minus - plus - thick * r.conductors - 18)
  const lost = $derived(Math.min(gap / 2 - 8, ((r.dropFraction ?? 0) / (2 * r.dropLimit)) * (gap / 2)))
  const [w1, w2] = $derived([plus + (thick * r.conductors) / 2 + 9, minus - (thick * r.conductors) / 2 - 9])
  const mid = $derived((w1 + w2) / 2)
</script>

<Drawing name={e.headlines.cables} bind:height fill bind:width least={340}>
  {#each ticks(most, 4) as t (t)}
    <line x1={left} x2={end} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
    <text x={left - 6} y={y(t) + 4} text-anchor="end" class="fig">{num(t)}{t === 0 ? ' A' : ''}</text>
  {/each}
  {#each parts as part (part.key)}
    <rect x={part.x1} y={y(part.copper)} width={part.x2 - part.x1} height={base - y(part.copper)} fill="var(--tint)" />
    <rect x={part.x1} y={y(part.load)} width={part.x2 - part.x1} height={base - y(part.load)} fill="var(--copper)" />
    <path
      d="M{part.x1} {base} V{y(part.copper)} H{part.x2} V{base}"
      fill="none"
      stroke="var(--copper)"
      stroke-width="2.5"
    />
    {#if part.fuse > part.copper * (1 + 1e-9)}
      <rect
        x={part.x1}
        y={y(part.fuse)}
        width={part.x2 - part.x1}
        height={y(part.copper) - y(part.fuse)}
        fill="var(--ink)"
      />
      <text
        x={(part.x1 + part.x2) / 2}
        y={thinStrip(part) ? y(part.copper) + 16 : (y(part.fuse) + y(part.copper)) / 2 + 5}
        text-anchor="middle"
        class={['fig over', thinStrip(part) && 'below']}>{say(part.fuse - part.copper, 'A')} over</text
      >
    {/if}
    {#if part.load > part.fuse && part.fuse > 0}
      <rect
        x={part.x1}
        y={y(part.load)}
        width={part.x2 - part.x1}
        height={y(part.fuse) - y(part.load)}
        fill="var(--ink)"
      />
    {/if}
    {#if part.fuse > 0}<line
        x1={part.x1}
        x2={part.x2}
        y1={y(part.fuse)}
        y2={y(part.fuse)}
        stroke="var(--ink)"
        stroke-width="2"
      />{/if}
  {/each}
  <line x1={left} x2={end} y1={base} y2={base} stroke="var(--ink)" />
  {#if r.ampacityA}<FigText
      ptr="/mainRun/ampacityA"
      unit="A"
      label="copper carries"
      x={end - 6}
      y={y(r.ampacityA) + ((r.ratingA ?? 0) > r.ampacityA ? 15 : -5)}
      anchor="end"
      size={15}
      after="copper carries"
    />{/if}
  {#if r.ratingA}
    {@const near = r.ampacityA && r.ampacityA >= r.ratingA ? Math.abs(y(r.ratingA) - y(r.ampacityA)) < 18 : false}
    <FigText
      ptr="/mainRun/ratingA"
      unit="rating"
      label="fuse"
      x={end - 6 - (near ? (narrow ? 128 : 150) : 0)}
      y={y(r.ratingA) - 5}
      anchor="end"
      size={15}
      after="fuse"
    />
  {/if}
  <FigText
    ptr="/mainRun/designA"
    unit="A"
    label="load"
    x={end - 6}
    y={Math.min(base - 6, y(r.designA) + 18)}
    anchor="end"
    size={16}
    fill="var(--on-copper)"
  />
  {#if joined}
    <text x={(left + post) / 2} y={base - 6} text-anchor="middle" class="on-copper">{bars ? 'leads' : 'links'}</text>
  {/if}

  <!-- Both poles with their parts, the run to scale in metres. -->
  {#each [plus, minus] as cy (cy)}
    {#if joined && conductor}<Copper
        x1={left}
        y1={cy}
        x2={post}
        y2={cy}
        thick={Math.min(thick, diameterMm(conductor.areaMm2) * pxPerMm)}
        share={linkShare}
      />{/if}
    <Copper x1={post} y1={cy} x2={end} y2={cy} {thick} conductors={r.conductors} {share} />
    {#if joined}
      {#each strings as i (i)}
        <circle cx={dot(i)} {cy} r="9" fill="var(--sheet)" stroke="var(--ink)" />
        <text x={dot(i)} y={cy + 4.5} text-anchor="middle" class="fig" style:font-size="12.5px"
          >{stringName(i + 1)}</text
        >
      {/each}
    {/if}
  {/each}
  {#if r.ratingA}
    <rect x={fuseAt - 12} y={plus - 13} width="24" height="26" fill="var(--sheet)" stroke="var(--ink)" />
    <line x1={fuseAt - 12} x2={fuseAt + 12} y1={plus} y2={plus} stroke="var(--ink)" stroke-width="2" />
    <text x={fuseAt + 18} y={plus - 15} class="fig"
      >{say(r.ratingA, 'rating')}<tspan dx="4" class="plain"
        >{narrow ? 'fuse' : `fuse, ${say(r.fuseDistanceM, 'm', session.units)} from the post`}</tspan
      ></text
    >
  {:else}
    <text x={post + 14} y={plus - 15}>no fuse</text>
  {/if}
  <text x={end - 4} y={plus - 15} text-anchor="end" class="faint"
    >{r.conductors > 1 ? `${r.conductors} × ` : ''}{r.size ?? 'no cable'}, {say(r.lengthM, 'm', session.units)}{narrow
      ? ''
      : ' one way'}</text
  >
  {#if r.dropV !== null}
    <path
      d="M{post} {w1} H{end} V{w1 + lost} Z M{post} {w2} H{end} V{w2 - lost} Z"
      fill="var(--page)"
      stroke="var(--ink)"
    />
    {#each [w1 + gap / 4, w2 - gap / 4] as limit (limit)}<line
        x1={end - 14}
        x2={end + 6}
        y1={limit}
        y2={limit}
        stroke="var(--copper)"
        stroke-width="2"
      />{/each}
    <FigText
      ptr="/voltage/lowV"
      unit="V"
      label="at the posts, nearly empty"
      x={post + 10}
      y={mid + 6}
      size={narrow ? 15 : 19}
      after={narrow ? '' : 'at the posts, worst'}
    />
    <FigText
      ptr="/mainRun/dropFraction"
      unit="fraction"
      label="drop"
      x={(post + end) / 2 + (narrow ? 0 : 26)}
      y={mid + 5}
      anchor="middle"
      size={16}
      after={narrow ? 'lost' : `lost on the way, ${say(r.dropLimit, 'fraction')} allowed`}
    />
    <FigText
      ptr="/mainRun/endV"
      unit="V"
      label="at the inverter"
      x={end - 8}
      y={mid + 6}
      anchor="end"
      size={narrow ? 15 : 19}
      after={narrow ? '' : 'at the end'}
    />
  {/if}
  {#if p === null}<text x={post + 10} y={height - 30} class="faint">the short circuit waits for the bank</text>{/if}
</Drawing>

<style>
  .below.over {
    fill: var(--ink);
  }
  .over {
    fill: var(--sheet);
    font-size: 14px;
  }
  .on-copper {
    fill: var(--on-copper);
    font-size: 13px;
  }
  .faint {
    fill: var(--ink-2);
  }
  .plain {
    font-family: 'Badger Words', 'Badger Signs', sans-serif;
    font-stretch: 100%;
    font-weight: 400;
    font-size: 11.5px;
    fill: var(--ink-2);
  }
</style>
