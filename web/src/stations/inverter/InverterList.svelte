<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import { api } from '../../api/client'
  import type { InverterItem, InverterTrial } from '../../api/client'
  import { following } from '../../app/following.svelte'
  import { session } from '../../app/session.svelte'
  import { known, num } from '../../ui/quantity'
  import OwnInverter from './OwnInverter.svelte'

  /** Every inverter there is, judged for this design: those that fit first, the others with the reasons why not. */
  const FEW = 5
  const judged = following(api.inverters)
  const trials = $derived(judged.list)
  let all = $state(false)
  let making = $state(false)

  const choice = $derived(session.bank!.inverters[0] ?? null)
  const here = $derived(session.result?.inverter?.item?.key)
  const shown = $derived(all ? trials : trials.slice(0, FEW))

  function take(item: InverterItem) {
    if (choice) session.edit({ path: '~/inverters/0/item', value: item }, true)
    else
      session.edit(
        { path: '~/inverters', value: [{ id: 'i1', item, stack: 1, onH: null, feeds: null, charger: null }] },
        true,
      )
  }

  async function drop(key: string) {
    await api.dropInverter(key)
    await judged.again()
  }
</script>

<section class="inverters" aria-labelledby="inverters-title" data-testid="inverters">
  <h2 id="inverters-title" class="caption">Inverters, those that fit first</h2>
  {#each shown as t (t.item.key + t.item.name)}
    <div class={['item', t.item.key === here && 'here']} data-inverter={t.item.key}>
      <div class="flex items-baseline gap-2">
        <button
          type="button"
          class={['text-left', t.item.key === here ? 'font-bold' : 'link-copper']}
          disabled={t.item.key === here}
          onclick={() => take(t.item)}>{t.item.name}</button
        >
        <span class="ml-auto fig text-[13px]">{known(t.item.price, num)}</span>
        {#if t.item.key.startsWith('own-')}
          <button
            type="button"
            class="min-w-6 min-h-6 cursor-pointer"
            aria-label="Take {t.item.name} out of my inverters"
            onclick={() => drop(t.item.key)}><X size={13} /></button
          >
        {/if}
      </div>
      {#if t.fits}
        <p class="caption">fits, {num(t.spareW)} W over what is wanted</p>
      {:else}
        <p class="caption">{t.reasons.join('; ')}</p>
      {/if}
    </div>
  {/each}
  <div class="flex flex-wrap gap-2 mt-1">
    {#if trials.length > FEW}
      <button type="button" class="btn btn-outline btn-xs" onclick={() => (all = !all)}
        >{all ? 'Fewer' : `${trials.length - FEW} more`}</button
      >
    {/if}
    <button type="button" class="btn btn-outline btn-xs" onclick={() => (making = true)}>Add my own</button>
  </div>
</section>
<OwnInverter bind:open={making} onkept={(item) => (take(item), void judged.again())} />

<style>
  .inverters {
    border-top: 1px solid var(--hair);
    margin-top: 6px;
    padding-top: 8px;
  }
  .item {
    padding: 2px 0 4px;
  }
  .item button {
    min-height: 24px;
    font-size: 13px;
  }
  .here {
    border-left: 2px solid var(--copper);
    padding-left: 6px;
  }
  @media (max-width: 939px) {
    .item button,
    .inverters :global(.btn) {
      min-height: 44px;
    }
  }
</style>
