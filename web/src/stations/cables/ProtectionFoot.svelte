<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { say } from '../../ui/quantity'
  import { hand } from './hand.svelte'
  import { protection } from './protection.svelte'

  /** The three who compete in the short that is looked at, on their own axis of milliseconds. */
  const uid = $props.id()
  const chart = $derived(protection.answer?.run === hand.id ? protection.answer : null)
  const probe = $derived(chart?.probe ?? null)
  let width = $state(240)
  const ends = $derived(
    (probe?.who ?? [])
      .flatMap((w) => (w.who === 'copper' ? [w.toS] : [w.fromS, w.toS]))
      .filter((s): s is number => s !== null && s > 0),
  )
  const from = $derived(10 ** Math.floor(Math.log10(Math.min(...ends, 0.01) * 0.8)))
  const to = $derived(Math.max(from * 100, 10 ** Math.ceil(Math.log10(Math.max(...ends, 0.01) * 1.3))))
  const x = (s: number) => 2 + Math.max(0, Math.min(1, Math.log(s / from) / Math.log(to / from))) * (width - 4)
  const ticks = $derived.by(() => {
    const all: number[] = []
    for (let t = from; t <= to * 1.001; t *= 10) all.push(t)
    const every = Math.ceil((all.length * 46) / Math.max(1, width))
    return all.filter((_, i) => i % every === 0)
  })
  const stands = $derived(probe?.who.find((w) => w.who === 'copper')?.toS ?? null)
  const rowY = (i: number) => 16 + i * 42
  const words = (w: NonNullable<typeof probe>['who'][number]) => {
    if (w.who === 'copper') return `${w.name} stands`
    const name = w.name.replace('the ', '')
    const many = name.endsWith('fuses')
    if (w.fromS === null) return `${name} ${many ? 'hold' : 'holds'}`
    if (w.breaks) return `${name} ${many ? 'open' : 'opens'}`
    return `${name} ${many ? 'melt' : 'melts'}, cannot break`
  }
</script>

{#if chart && probe}
  <section class="foot" aria-labelledby="probe-title">
    <h3 id="probe-title" class="font-bold text-[13.5px]" data-testid="probe-title">
      {probe.metres === null ? 'A short of' : `A short at ${say(probe.metres, 'm', session.units)}:`}
      {say(probe.amps, 'A')}
    </h3>
    <p class="note" data-testid="probe-says">{probe.sentence}.</p>
    {#if chart.along.length > 1}
      <label class="slider"
        ><span class="sr-only">how far along the run</span>
        <input
          type="range"
          min="0"
          max={chart.along.at(-1)!.metres}
          step="0.01"
          value={probe.metres ?? 0}
          oninput={(e) => protection.toMetres(Number(e.currentTarget.value))}
          onchange={() => protection.show()}
        /></label
      >
    {/if}
    <div bind:clientWidth={width}>
      <svg {width} height={rowY(probe.who.length) + 14} aria-hidden="true">
        <defs
          ><pattern id="{uid}-h" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(40)"
            ><line x1="1" x2="1" y1="0" y2="5" stroke="var(--ink-2)" stroke-width="0.9" /></pattern
          ></defs
        >
        {#each probe.who as w, i (w.who)}
          {@const y = rowY(i)}
          <text x="2" y={y - 3} class="who">{words(w)}</text>
          {#if w.who === 'copper' && w.toS !== null}
            <rect x="2" y={y + 3} width={x(w.toS) - 2} height="11" fill="var(--copper)" />
            <text
              x={x(w.toS) + 60 < width ? x(w.toS) + 5 : width}
              y={x(w.toS) + 60 < width ? y + 13 : y - 3}
              text-anchor={x(w.toS) + 60 < width ? 'start' : 'end'}
              class="fig t">{say(w.toS, 's')}</text
            >
          {:else if w.fromS !== null && w.toS !== null}
            {@const [a, b] = [x(w.fromS), x(w.toS)]}
            <rect
              x={a}
              y={y + 3}
              width={Math.max(2, b - a)}
              height="11"
              fill={w.breaks ? `url(#${uid}-h)` : 'none'}
              stroke="var(--ink)"
              stroke-dasharray={w.breaks ? undefined : '3 3'}
            />
            {#if w.breaks && stands !== null && w.toS > stands}<rect
                x={Math.max(a, x(stands))}
                y={y + 3}
                width={b - Math.max(a, x(stands))}
                height="11"
                fill="var(--ink)"
              />{/if}
            <text
              x={b + 100 < width ? b + 5 : a > 100 ? a - 5 : width}
              y={b + 100 < width || a > 100 ? y + 13 : y - 3}
              text-anchor={b + 100 < width ? 'start' : 'end'}
              class="fig t">{say(w.fromS, 's')} to {say(w.toS, 's')}</text
            >
          {/if}
        {/each}
        {#if stands !== null}<line
            x1={x(stands)}
            x2={x(stands)}
            y1="18"
            y2={rowY(probe.who.length) - 26}
            stroke="var(--copper)"
            stroke-dasharray="2 2"
          />{/if}
        {#each ticks as t (t)}<text
            x={x(t) < 24 ? 0 : x(t) > width - 16 ? width : x(t)}
            y={rowY(probe.who.length) + 8}
            text-anchor={x(t) < 24 ? 'start' : x(t) > width - 16 ? 'end' : 'middle'}
            class="fig t">{say(t, 's')}</text
          >{/each}
      </svg>
    </div>
  </section>
{/if}

<style>
  .foot {
    border-top: 1px solid var(--hair);
    padding-top: 10px;
    margin-top: 10px;
  }
  .who {
    font-size: 12px;
    fill: var(--ink-2);
  }
  .t {
    font-size: 11.5px;
  }
  .slider input {
    width: 100%;
    accent-color: var(--copper);
    min-height: 24px;
  }
  @media (min-width: 940px) {
    .slider {
      display: none;
    }
  }
  @media (max-width: 939px) {
    .slider input {
      min-height: 44px;
    }
  }
</style>
