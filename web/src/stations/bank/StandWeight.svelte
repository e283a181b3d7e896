<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { num } from '../../ui/quantity'
  import { stand } from './stand.svelte'

  /** What is over the units in either way, and what the bank does to what carries it. */
  const ways = $derived(stand.here?.room.ways ?? [])
  const trim = $derived(stand.result?.trim ?? null)
  const side = $derived(session.design!.place.trim)
  const longest = $derived(Math.max(1, ...ways.flatMap((w) => [w.wantedMm, w.thereMm])))
  const px = (mm: number) => Math.max(0, (mm / longest) * 110)
  const blank = {
    frontAxleM: null,
    rearAxleM: null,
    frontKg: null,
    rearKg: null,
    frontLimitKg: null,
    rearLimitKg: null,
    balanceM: null,
  }
  const ensure = () => (side ? [] : [{ path: '/place/trim', value: blank }])
  const most = $derived(Math.max(1, Math.abs(trim?.rearGainKg ?? 0), Math.abs(trim?.frontGainKg ?? 0)))
</script>

{#snippet bar(kg: number)}
  <span class="track"><span class={['bar', kg < 0 && 'off']} style:width="{(Math.abs(kg) / most) * 100}%"></span></span>
{/snippet}
<div class="weight">
  {#if ways.length > 0}
    <h3>over the units, to one scale</h3>
    <svg width="212" height={ways.length * 30 + 4} class="bare" aria-hidden="true">
      {#each ways as w, i (w.name)}
        <text x="0" y={i * 30 + 18} class="word">{w.name}</text>
        <rect x="76" y={i * 30 + 6} width={px(w.wantedMm)} height="14" fill="none" stroke="var(--ink)" />
        {#if w.leftMm < 0}
          <rect
            x={76 + px(w.thereMm)}
            y={i * 30 + 6}
            width={px(w.wantedMm) - px(w.thereMm)}
            height="14"
            fill="var(--ink)"
          />
        {/if}
        <line
          x1={76 + px(w.thereMm)}
          x2={76 + px(w.thereMm)}
          y1={i * 30 + 1}
          y2={i * 30 + 25}
          stroke="var(--ink)"
          stroke-width="2.4"
        />
      {/each}
    </svg>
    <ul data-testid="ways">
      {#each ways as w (w.name)}
        <li>
          {w.name}:
          <b class="fig">{w.leftMm < 0 ? `${num(-w.leftMm)} mm short` : `${num(w.leftMm)} mm free`}</b>{w.besideMm <
          -0.5
            ? `, but ${num(-w.besideMm)} mm too long or wide`
            : ''}
        </li>
      {/each}
    </ul>
  {/if}
  <h3>its weight</h3>
  {#if trim}
    <p>
      <b class="fig">{num(trim.kg, 1)} kg</b>, {num(Math.abs(trim.forwardM), 2)} m {trim.forwardM < 0
        ? 'behind'
        : 'before'} the mark,
      {trim.rightM === 0
        ? 'on the middle line'
        : `${num(Math.abs(trim.rightM), 2)} m to the ${trim.rightM > 0 ? 'right' : 'left'}`}
    </p>
    {#if trim.rearGainKg !== null && trim.frontGainKg !== null}
      <p class="axle">
        <span>rear axle</span>
        {@render bar(trim.rearGainKg)}
        <Fig ptr="/stands/trim/rearGainKg" unit="kg" label="on the rear axle" size={13} />
      </p>
      <p class="axle">
        <span>front, coupling</span>
        {@render bar(trim.frontGainKg)}
        <Fig ptr="/stands/trim/frontGainKg" unit="kg" label="on the front axle or the coupling" size={13} />
      </p>
    {/if}
    {#if trim.momentKgm !== 0}
      <p>sideways <Fig ptr="/stands/trim/momentKgm" unit="kgm" label="sideways moment" size={13} /></p>
    {/if}
    {#if trim.balanceKg !== null}<p><b class="fig">{num(trim.balanceKg, 1)} kg</b> balance it there</p>{/if}
  {:else}
    <p class="caption">Say how far forward the middle of each compartment lies.</p>
  {/if}
  <details>
    <summary>axles, or coupling and axle</summary>
    <div class="fields">
      <QuantityField
        label="front at"
        kind="length"
        path="/place/trim/frontAxleM"
        whole
        {ensure}
        placeholder="–"
        width="64px"
      />
      <QuantityField
        label="rear at"
        kind="length"
        path="/place/trim/rearAxleM"
        whole
        {ensure}
        placeholder="–"
        width="64px"
      />
      <QuantityField
        label="on it, kg"
        kind="number"
        path="/place/trim/frontKg"
        whole
        {ensure}
        placeholder="0"
        width="64px"
      />
      <QuantityField
        label="on it, kg"
        kind="number"
        path="/place/trim/rearKg"
        whole
        {ensure}
        placeholder="0"
        width="64px"
      />
      <QuantityField
        label="front bears"
        kind="number"
        path="/place/trim/frontLimitKg"
        whole
        {ensure}
        placeholder="–"
        width="64px"
      />
      <QuantityField
        label="rear bears"
        kind="number"
        path="/place/trim/rearLimitKg"
        whole
        {ensure}
        placeholder="–"
        width="64px"
      />
      <QuantityField
        label="balance at"
        kind="length"
        path="/place/trim/balanceM"
        whole
        {ensure}
        placeholder="–"
        width="64px"
      />
    </div>
  </details>
</div>

<style>
  .weight {
    font-size: 12px;
  }
  h3 {
    font-weight: 700;
    font-size: 12.5px;
    margin-top: 4px;
  }
  .word {
    font-size: 12px;
  }
  .axle {
    display: grid;
    grid-template-columns: 86px minmax(0, 1fr) 62px;
    gap: 6px;
    align-items: center;
  }
  .track {
    height: 9px;
    position: relative;
  }
  .bar {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--ink);
  }
  .off {
    background: none;
    border: 1px solid var(--ink);
  }
  summary {
    cursor: pointer;
    min-height: 24px;
  }
  .fields {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 2px 8px;
  }
  @media (max-width: 939px) {
    summary {
      min-height: 44px;
    }
  }
</style>
