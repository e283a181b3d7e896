<script lang="ts">
  import { api } from '../../api/client'
  import type { WhatIf } from '../../api/client'
  import { following } from '../../app/following.svelte'
  import { session } from '../../app/session.svelte'
  import { num, say } from '../../ui/quantity'

  /** What could be done otherwise, and what it saves, before it is pressed. */
  const MOST = 5
  const ifs = following(api.whatIfs)
  const list = $derived(ifs.list)
  let all = $state(false)

  const shown = $derived(all ? list : list.slice(0, MOST))

  function outcome(w: WhatIf): string {
    const parts: string[] = []
    if (w.savesWh >= 0.5) parts.push(`saves ${say(w.savesWh, 'Wh')} a day`)
    else if (w.savesWh < -1) parts.push(`costs ${say(-w.savesWh, 'Wh')} a day`)
    if (w.savesSurgeW >= 0.5) parts.push(`worst instant ${num(w.surgeDemandW)} W, ${num(w.savesSurgeW)} less`)
    if (w.wrong < w.wrongNow) parts.push(`${w.wrongNow - w.wrong} wrong less`)
    else if (w.wrong > w.wrongNow) parts.push(`${w.wrong - w.wrongNow} wrong more`)
    return parts.join(' · ')
  }
</script>

{#if list.length > 0}
  <section aria-labelledby="what-ifs" class="mt-1" data-testid="what-ifs">
    <h2 id="what-ifs" class="caption mb-1">What if</h2>
    {#each shown as w (w.kind + w.title)}
      <div class="what-if" data-kind={w.kind}>
        <button type="button" class="link-copper text-left text-[13px]" onclick={() => session.edit(w.changes, true)}
          >{w.title}</button
        >
        <p class="note">{outcome(w)}</p>
        <p class="caption">{w.detail}</p>
      </div>
    {/each}
    {#if list.length > MOST}
      <button type="button" class="btn btn-outline btn-xs mt-1" onclick={() => (all = !all)}
        >{all ? 'Fewer' : `${list.length - MOST} more`}</button
      >
    {/if}
  </section>
{/if}

<style>
  section {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  .what-if {
    padding-bottom: 7px;
  }
  .what-if button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    .what-if button,
    section > .btn {
      min-height: 44px;
    }
  }
</style>
