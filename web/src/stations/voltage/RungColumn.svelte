<script lang="ts">
  import type { LadderRung } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { cut, diameterMm } from '../../drawing/geometry'
  import Mark from '../../ui/Mark.svelte'
  import { sizeName } from '../../ui/quantity'
  import RungFig from './RungFig.svelte'

  /** What a voltage needs and gives, worked out in full. */
  interface Props {
    rung: LadderRung
    pxPerMm: number
    /** Which of the charge controllers is compared. */
    controller: number
    /** The greatest of each row, for its bars. */
    most: { fuse: number; drop: number; allows: number; controller: number }
    dropLimit: number
    asked: number
  }
  let { rung, pxPerMm, controller, most, dropLimit, asked }: Props = $props()
  const r = $derived((rung.cable.areaMm2 ? diameterMm(rung.cable.areaMm2) * pxPerMm : 0) / 2)
  const pinned = $derived(session.bank!.systemV !== null)
  const needs = $derived(rung.needs)
  const noAc = $derived(rung.inverter.name === null && (session.result?.loads?.peakAcW ?? 0) === 0)
  const names = (list: string[]) =>
    list.length > 2 ? `${cut(list[0], 20)}, ${list.length - 1} more` : list.map((n) => cut(n, 18)).join(', ')
</script>

<div class={['column', rung.here && 'here']} data-rung-column={rung.systemV}>
  <div class="head">
    <span class="fig text-[26px] leading-none">{rung.systemV}<span class="text-[16px] ml-1">V</span></span>
    <span class="caption">{rung.bank.series ? `${rung.bank.series}S${rung.bank.parallel}P` : ''}</span>
    <span class="ml-auto caption whitespace-nowrap"
      >{#if rung.wrong > 0 || (rung.bus.amps !== null && rung.bank.unit)}<Mark
          kind={rung.wrong > 0 ? 'wrong' : 'fits'}
          size={8}
        />
        {rung.wrong > 0 ? `${rung.wrong} wrong` : 'fits'}{/if}</span
    >
  </div>
  <svg viewBox="0 6 96 28" width="96" height="28" aria-hidden="true">
    {#if r > 0}
      {#each Array.from({ length: rung.cable.conductors ?? 1 }, (_, i) => i) as i (i)}
        <circle
          cx={48 + (i - ((rung.cable.conductors ?? 1) - 1) / 2) * (2 * r + 1)}
          cy="20"
          {r}
          fill="var(--copper-body)"
          stroke="var(--copper)"
        />
        <circle
          cx={48 + (i - ((rung.cable.conductors ?? 1) - 1) / 2) * (2 * r + 1)}
          cy="20"
          r={r *
            Math.sqrt(Math.min(1, rung.cable.ampacityA && rung.bus.amps ? rung.bus.amps / rung.cable.ampacityA : 0))}
          fill="var(--copper)"
        />
      {/each}
    {/if}
  </svg>
  <RungFig
    {rung}
    ptr="/mainRun/cable/areaMm2"
    value={rung.cable.areaMm2}
    unit="mm2"
    label="main cable"
    words={rung.cable.size ? sizeName(rung.cable.size, rung.cable.conductors ?? 1) : 'none fits'}
  />
  <RungFig
    {rung}
    ptr="/mainRun/fuse/ratingA"
    value={rung.cable.fuseA}
    unit="rating"
    label="fuse"
    bar={(rung.cable.fuseA ?? 0) / most.fuse}
  />
  <RungFig
    {rung}
    ptr="/mainRun/drop/fraction"
    value={rung.cable.dropFraction}
    unit="fraction"
    label="drop"
    bar={(rung.cable.dropFraction ?? 0) / most.drop}
    mark={dropLimit / most.drop}
  />
  <RungFig
    {rung}
    ptr="/network/ceiling/allowsAcW"
    value={rung.bank.allowsAcW}
    unit="W"
    label="bank allows"
    words={rung.bank.allowsAcW === null ? (noAc ? 'no AC' : 'no limit') : null}
    bar={rung.bank.allowsAcW === null ? null : rung.bank.allowsAcW / most.allows}
    mark={asked / most.allows}
  />
  <RungFig
    {rung}
    ptr="/needs/controllers/{controller}/nominalW"
    value={needs?.controllers[controller].nominalW ?? null}
    unit="W"
    label="charge controller passes"
    bar={(needs?.controllers[controller].nominalW ?? 0) / most.controller}
  />
  <span class="words"
    >{#if needs && needs.converted.length > 0}{names(needs.converted)}:
      <RungFig
        {rung}
        ptr="/needs/converterLossWh"
        value={needs.converterLossWh}
        unit="Wh"
        label="converters keep, a day"
        size={13}
      />
    {:else}none{/if}</span
  >
  <span class="words">{needs && needs.direct.length > 0 ? names(needs.direct) : 'none'}</span>
  <span class="words"
    >{#if noAc}none needed{:else}{rung.inverter.name ?? 'none fits'}<span class="caption"
        >{rung.inverter.name && rung.inverter.fit === 0
          ? `, none of ${rung.inverter.made} alone`
          : `, ${rung.inverter.fit} of ${rung.inverter.made} fit`}</span
      >{/if}</span
  >
  <RungFig
    {rung}
    ptr="/needs/touchV"
    value={needs?.touchV ?? null}
    unit="V"
    label="most a hand may meet"
    words={needs?.touchDanger ? `${needs.touchV.toFixed(1)} V: danger` : null}
  />
  <div class="money">
    <RungFig
      {rung}
      ptr="/needs/totalPrice"
      value={needs?.totalPrice ?? null}
      unit="money"
      label="cost of these"
      size={rung.cable.size ? 20 : 13}
      words={!rung.cable.size ? 'no cable, no price' : needs && needs.totalPrice === null ? 'not known' : null}
    />
  </div>
  {#if rung.here}
    {#if pinned}
      <button
        type="button"
        class="link-copper act"
        onclick={() => session.edit({ path: '~/systemV', value: null }, true)}>back to advised</button
      >
    {:else}
      <button
        type="button"
        class="link-copper act"
        onclick={() => session.edit({ path: '~/systemV', value: rung.systemV }, true)}>pin it</button
      >
    {/if}
  {:else}
    <button type="button" class="btn btn-outline btn-xs act" onclick={() => session.edit(rung.changes, true)}
      >Take {rung.systemV} V</button
    >
  {/if}
</div>

<style>
  .column {
    display: grid;
    grid-template-rows: subgrid;
    grid-row: 1 / -1;
    align-items: center;
    padding: 4px 10px;
    min-width: 0;
  }
  .here {
    background: var(--tint);
    outline: 1.5px solid var(--ink);
    outline-offset: -1px;
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 6px;
  }
  .words {
    font-size: 12px;
    line-height: 1.2;
    overflow-wrap: anywhere;
  }
  .words :global(.cell) {
    display: inline-grid;
  }
  .money {
    border-top: 1px solid var(--hair);
  }
  .act {
    justify-self: start;
  }
  @media (max-width: 939px) {
    .column {
      padding: 4px;
    }
    .words {
      font-size: 11.5px;
    }
    .head {
      flex-wrap: wrap;
      gap: 0 6px;
    }
    .head .ml-auto {
      margin-left: 0;
    }
    .act {
      font-size: 12px;
      max-width: 100%;
      min-height: 44px;
    }
  }
</style>
