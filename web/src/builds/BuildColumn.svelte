<script lang="ts">
  import type { Build } from '../api/client'
  import { session } from '../app/session.svelte'
  import { diameterMm } from '../drawing/geometry'
  import { known, num, say } from '../ui/quantity'
  import { builds, letter, PRESENT, styleWord } from './bench.svelte'

  /** One build: its units from the front and its main cable cut across, both to the one scale of the page; its whole cost by parts. */
  interface Props {
    build: Build
    index: number
    /** Pixels of a millimetre, of units; the same for all. */
    pxPerMm: number
    tall: number
    most: number
    money: (value: number) => string
  }
  let { build, index, pxPerMm, tall, most, money }: Props = $props()
  const present = $derived(index === 0)
  const key = $derived(present ? PRESENT : build.key)
  const l = $derived(build.layout)
  const CABLE = 1.2
  /** Null where nobody knows the price of something it needs. */
  const total = $derived(build.bill.unknown.length > 0 ? null : builds.even ? build.evenTotal : build.bill.total)
  const groups = $derived.by(() => {
    const sum = (...parts: string[]) =>
      build.bill.lines.filter((x) => parts.includes(x.part)).reduce((s, x) => s + (x.price ?? 0), 0)
    return [
      { name: 'units', value: sum('units') - (build.bill.total - (total ?? build.bill.total)), css: 'units' },
      { name: 'balancers, BMS', value: sum('balancers', 'protection'), css: 'balancers' },
      {
        name: 'links, copper, fuses, switch',
        value: sum('links', 'copper', 'fuses', 'switching'),
        css: 'copper',
      },
      { name: 'inverter, converter', value: sum('inverter', 'converter'), css: 'inverter' },
      { name: 'monitor, box', value: sum('monitor', 'box'), css: 'box' },
      { name: 'hours', value: sum('hours'), css: 'hours' },
    ]
  })
  const unitMm = $derived(l ? { w: (l.lengthMm - (l.across - 1) * 10) / l.across, h: l.heightMm / l.high } : null)
  const area = $derived(build.cableMm2 ? diameterMm(build.cableMm2) : 0)
  const cableR = $derived(Math.max(3, area * CABLE))
  const wide = $derived(l ? l.lengthMm * pxPerMm : 0)
</script>

<section class={['column', builds.subject === key && 'subject']} data-build={present ? 'present' : build.key}>
  <h3>
    <button
      type="button"
      class="letter fig"
      aria-pressed={builds.subject === key}
      title="turn this one against the others"
      aria-label="{letter(index)}: {build.name}. Turn it against the others"
      onclick={() => {
        builds.subject = key
        builds.tryPrice = null
        void builds.compare()
      }}>{letter(index)}</button
    >
    <span>{build.name}</span>
  </h3>
  <svg
    width="100%"
    height={tall + 8}
    role="img"
    aria-label="{build.name}, {l
      ? `${say(l.lengthMm / 1000, 'm')} long, ${say(l.widthMm / 1000, 'm')} deep, ${say(l.heightMm / 1000, 'm')} high`
      : 'size not known'}; main cable {build.cable}"
  >
    {#if l && unitMm}
      {#each { length: Math.min(build.units, l.across * l.high) } as _, i (i)}
        {@const col = i % l.across}
        {@const row = Math.floor(i / l.across)}
        <rect
          x={1 + col * (unitMm.w + 10) * pxPerMm}
          y={tall - (row + 1) * unitMm.h * pxPerMm}
          width={unitMm.w * pxPerMm}
          height={unitMm.h * pxPerMm}
          fill={builds.subject === key ? 'var(--tint)' : 'var(--page)'}
          stroke="var(--ink)"
        />
      {/each}
      {#if l.deep > 1}<text x={wide + 6} y={tall - 34} class="deep">{l.deep} deep</text>{/if}
    {:else}<text x="2" y={tall - 8}>size not known</text>{/if}
    {#each { length: build.cableConductors } as _, i (i)}
      <circle
        cx={wide + 12 + cableR + i * (2 * cableR + 2)}
        cy={tall - cableR}
        r={cableR}
        fill="var(--copper)"
        stroke="var(--copper-body)"
        stroke-width="2"
      />
    {/each}
    <line x1="0" x2="100%" y1={tall + 0.5} y2={tall + 0.5} stroke="var(--ink)" stroke-width="1.5" />
  </svg>
  <p class="cost">
    <button
      type="button"
      class="fig total"
      data-testid="total"
      onclick={() => (builds.bill = builds.bill === build.key ? null : build.key)}
      aria-label="{known(total, money)}, the whole bill of {build.name}. Show it">{known(total, money)}</button
    >
    <span class="note"
      >{build.choice.systemV} V, {build.choice.series}S{build.choice.parallel}P{build.choice.parallel > 1
        ? `, ${styleWord[build.choice.style]}`
        : ''}{present ? ', as designed' : ''}</span
    >
  </p>
  <div class="bar" style:width="{((total ?? build.bill.total) / most) * 100}%" aria-hidden="true">
    {#each groups as g (g.name)}{#if g.value > 0}<span class={g.css} style:flex={g.value} title={g.name}
        ></span>{/if}{/each}
  </div>
  <p class="note facts">
    {say(build.worstA, 'A')}: {build.cable}, {build.fuseA
      ? `${say(build.fuseA, 'rating')} fuse`
      : 'no fuse made'}{build.bottleneck
      ? `. ${build.bottleneck.charAt(0).toUpperCase() + build.bottleneck.slice(1)} stops first`
      : ''}{build.communicates ? '. Units talk to each other' : ''}.
    {#if l}{num(l.lengthMm)} × {num(l.widthMm)} × {num(l.heightMm)} mm{l.fits === null
        ? ''
        : l.fits
          ? ', fits the space'
          : ', does not fit the space'}.{/if}
    {#if build.moreThanAsked !== null}{say(build.moreThanAsked, 'fraction')} more energy than asked.{/if}
  </p>
  {#if !build.fits}<p class="note"><b>Not to be built like this:</b> {build.wrong.slice(0, 2).join('; ')}</p>{/if}
  {#if !present}
    <p class="flex flex-wrap gap-3 items-center">
      <button type="button" class="btn btn-primary btn-xs" onclick={() => builds.take(build)}
        >Use build {letter(index)}</button
      >
      <button
        type="button"
        class="link-copper text-[12.5px] min-h-6"
        aria-label="take away {build.name}"
        onclick={() => builds.put(builds.keys.filter((k) => k !== build.key))}>take away</button
      >
    </p>
  {/if}
</section>

<style>
  .column {
    min-width: 0;
    padding-right: 12px;
  }
  h3 {
    display: flex;
    gap: 8px;
    align-items: baseline;
    font-size: 12.5px;
    font-weight: 600;
    min-height: 34px;
  }
  .letter {
    border: 1.5px solid var(--ink);
    width: 22px;
    height: 22px;
    flex: none;
    font-size: 15px;
    cursor: pointer;
    background: var(--sheet);
    line-height: 1;
  }
  .subject .letter {
    background: var(--copper);
    border-color: var(--copper);
    color: var(--on-copper);
  }
  .deep {
    fill: var(--ink-2);
  }
  .cost {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 8px;
    margin-top: 4px;
  }
  .total {
    font-size: 22px;
    cursor: pointer;
  }
  .total:hover {
    text-decoration: underline dotted;
  }
  .bar {
    display: flex;
    height: 13px;
    border: 1px solid var(--ink);
    margin: 2px 0 4px;
  }
  .bar span {
    border-right: 1px solid var(--ink);
  }
  .bar span:last-child {
    border-right: 0;
  }
  .units {
    background: var(--hair);
  }
  .balancers {
    background: var(--ink-2);
  }
  .copper {
    background: var(--copper);
  }
  .inverter {
    background: var(--page);
  }
  .box {
    background: var(--sheet);
  }
  .hours {
    background: repeating-linear-gradient(0deg, var(--ink-2) 0 1px, var(--sheet) 1px 4px);
  }
  .facts {
    line-height: 1.3;
  }
  @media (max-width: 939px) {
    .btn,
    .link-copper,
    .letter {
      min-height: 44px;
    }
    .letter {
      min-width: 44px;
    }
  }
</style>
