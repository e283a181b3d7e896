<script lang="ts">
  import type { Evaluation } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { say, sayVolts } from '../../ui/quantity'

  /** Every fuse class at this place: the rating it would take, and why it does not fit where it does not. */
  type Protection = NonNullable<Evaluation['banks'][number]['protection']>
  const p = $derived(session.result?.protection ?? null) as Protection | null
  const r = $derived(session.result?.mainRun ?? null)
  const index = $derived(session.bank!.runs.findIndex((run) => run.id === 'main'))

  function why(c: Protection['classes'][number]): string {
    const words = {
      rating: `none made for ${say(r!.wantedA, 'A')}`,
      cable: `${say(c.ratingA ?? 0, 'rating')} is above the cable`,
      voltage: `made for ${sayVolts(c.maxDcV)}, not ${sayVolts(p!.greatestChargingV)}`,
      interrupt: `breaks ${say(c.interruptA, 'A')}, a short is ${say(p!.shortCircuitA, 'A')}`,
    }
    // What is the class's own comes before the cable, which has a mend of its own.
    return words[c.fails.find((f) => f !== 'cable') ?? c.fails[0]]
  }
  function take(id: string) {
    session.edit(
      [
        { path: `~/runs/${index}/fuse/class`, value: id },
        { path: `~/runs/${index}/fuse/ratingA`, value: null },
      ],
      true,
    )
  }
</script>

{#if p && r && index >= 0}
  <section aria-labelledby="classes-title" class="classes">
    <h3 id="classes-title" class="font-bold text-[13.5px] mb-1">Fuse classes at this place</h3>
    <ul>
      {#each [...p.classes].sort((a, b) => Number(b.fits) - Number(a.fits)) as c (c.id)}
        <li class={[c.id === r.fuseClass && 'chosen']}>
          <span class="name">{c.label}</span>
          {#if c.fits}
            {#if c.id === r.fuseClass}
              <span class="note">chosen, {say(c.ratingA!, 'rating')}</span>
            {:else}
              <button
                type="button"
                class="link-copper"
                onclick={() => take(c.id)}
                aria-label="use {say(c.ratingA!, 'rating')} of {c.label}">use {say(c.ratingA!, 'rating')}</button
              >
            {/if}
          {:else}
            <span class="note">{why(c)}</span>
          {/if}
        </li>
      {/each}
    </ul>
    <p class="caption mt-1">Ratings are typical of each class; the maker’s own figure comes first.</p>
  </section>
{/if}

<style>
  .classes {
    border-top: 1px solid var(--hair);
    padding-top: 10px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 8px;
    padding: 3px 0;
    border-bottom: 1px solid var(--grid);
    font-size: 12.5px;
    line-height: 1.3;
  }
  .chosen .name {
    font-weight: 700;
  }
  .note {
    font-size: 12px;
  }
</style>
