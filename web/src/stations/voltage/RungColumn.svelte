<script lang="ts">
  import type { LadderRung } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import Mark from '../../ui/Mark.svelte'
  import { diameterMm } from '../../drawing/geometry'
  import { num, say, sizeName } from '../../ui/quantity'

  /** What a voltage needs and gives, worked out in full. */
  let { rung, pxPerMm }: { rung: LadderRung; pxPerMm: number } = $props()
  const r = $derived((rung.areaMm2 ? diameterMm(rung.areaMm2) * pxPerMm : 0) / 2)
  const pinned = $derived(session.bank!.systemV !== null)
</script>

<div class={['column', rung.here && 'here']}>
  <div class="head">
    <span class="fig text-[26px] leading-none">{rung.systemV}<span class="text-[16px] ml-1">V</span></span>
    <span class="caption">{rung.series ? `${rung.series}S${rung.parallel}P` : ''}</span>
    <span class="ml-auto caption whitespace-nowrap"
      ><Mark kind={rung.wrong > 0 ? 'wrong' : 'fits'} size={8} />
      {rung.wrong > 0 ? `${rung.wrong} wrong` : 'fits'}</span
    >
  </div>
  <svg viewBox="0 0 96 40" width="96" height="40" aria-hidden="true">
    {#if r > 0}
      {#each Array.from({ length: rung.conductors ?? 1 }, (_, i) => i) as i (i)}
        <circle
          cx={48 + (i - ((rung.conductors ?? 1) - 1) / 2) * (2 * r + 1)}
          cy="20"
          {r}
          fill="var(--copper-body)"
          stroke="var(--copper)"
        />
      {/each}
    {/if}
  </svg>
  <span class="cell fig">{rung.size ? sizeName(rung.size, rung.conductors ?? 1) : 'none fits'}</span>
  <span class="cell fig">{rung.fuseA ? say(rung.fuseA, 'rating') : '–'}</span>
  <span class="cell fig">{rung.dropFraction !== null ? say(rung.dropFraction, 'fraction') : '–'}</span>
  <span class="cell fig">{rung.allowsAcW !== null ? `${num(rung.allowsAcW)} W` : 'no limit'}</span>
  <span class="cell words">{rung.inverter ?? 'none fits'}</span>
  <span class="cell words">{rung.unit ?? '–'}</span>
  <span class="cell fig money">{rung.unitsPrice !== null ? num(rung.unitsPrice + (rung.inverterPrice ?? 0)) : '–'}</span
  >
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
    grid-template-rows: 34px 44px repeat(4, 26px) 36px 36px 34px 32px;
    align-items: center;
    padding: 6px 10px;
    min-width: 0;
  }
  .here {
    background: var(--tint);
    outline: 1.5px solid var(--ink);
  }
  .head {
    display: flex;
    align-items: baseline;
    gap: 6px;
  }
  .cell {
    font-size: 15px;
    overflow: hidden;
  }
  .words {
    font-size: 12px;
    line-height: 1.2;
  }
  .money {
    font-size: 20px;
    border-top: 1px solid var(--hair);
    line-height: 34px;
  }
  .act {
    justify-self: start;
  }
  @media (max-width: 939px) {
    .column {
      grid-template-rows: 56px 44px repeat(4, 26px) 52px 36px 34px 32px;
      padding: 6px;
    }
    .words {
      font-size: 11.5px;
    }
    .head {
      flex-wrap: wrap;
      gap: 0 6px;
    }
  }
</style>
