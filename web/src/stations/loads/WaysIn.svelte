<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { clock } from '../../ui/quantity'

  /** How the demand is stated, which season is shown, and which hour is looked at closely. */
  type Season = 'both' | 'winter' | 'summer'
  interface Props {
    season: Season
    sizes: Season
    seasonal: boolean
    onseason: (season: 'winter' | 'summer') => void
    stretched: number | null
    onstretch: (hour: number | null) => void
  }
  let { season, sizes, seasonal, onseason, stretched, onstretch }: Props = $props()
  const id = $props.id()
  const by = $derived(session.bank!.demand.by)
  const ways = [
    { value: 'loads', text: 'a list of loads' },
    { value: 'figure', text: 'one figure' },
    { value: 'states', text: 'states' },
  ]
</script>

<div class="ways">
  {#if seasonal}
    <div class="join" role="group" aria-label="Season shown">
      {#each ['winter', 'summer'] as const as s (s)}
        <button
          type="button"
          class={['btn btn-xs join-item', season === s ? 'btn-neutral' : 'btn-outline']}
          aria-pressed={season === s}
          onclick={() => onseason(s)}>{s}{sizes === s ? ', sizes the bank' : ''}</button
        >
      {/each}
    </div>
  {/if}
  <span class="one">
    <label for="{id}-by" class="caption">stated by</label>
    <select
      id="{id}-by"
      class="select select-xs"
      value={by}
      data-path="/demand/by"
      onchange={(e) => session.edit({ path: '~/demand/by', value: e.currentTarget.value }, true)}
    >
      {#each ways as way (way.value)}<option value={way.value}>{way.text}</option>{/each}
    </select>
  </span>
  <span class="one">
    <label for="{id}-hour" class="caption">time shown</label>
    <select
      id="{id}-hour"
      class="select select-xs"
      value={stretched === null ? '' : String(stretched)}
      data-testid="stretch"
      onchange={(e) => onstretch(e.currentTarget.value === '' ? null : Number(e.currentTarget.value))}
    >
      <option value="">whole day</option>
      {#each { length: 24 } as _, h (h)}<option value={String(h)}>{clock(h)} stretched</option>{/each}
    </select>
  </span>
</div>

<style>
  .ways {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: flex-end;
  }
  .one {
    display: inline-flex;
    flex-direction: column;
    gap: 1px;
  }
  .select {
    width: 122px;
    height: 26px;
  }
  @media (max-width: 939px) {
    .join .btn {
      min-height: 44px;
    }
  }
</style>
