<script lang="ts">
  import { num, say, stringName } from '../../ui/quantity'
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import { bench } from './bench.svelte'

  /** What happens when a string drops out, step by step: its share goes to the others, and whether they bear it. */
  const STEP_MS = 1100
  const drop = $derived(bench.drop)
  const last = $derived(drop ? drop.steps.length - 1 : 0)

  $effect(() => {
    if (!drop || bench.step >= last || matchMedia('(prefers-reduced-motion: reduce)').matches) return
    const timer = setTimeout(() => (bench.step = Math.min(last, bench.step + 1)), STEP_MS)
    return () => clearTimeout(timer)
  })
</script>

{#if bench.result && session.result?.network && session.result.network.oneOut.survivesA !== null}
  <section class="drops" aria-labelledby="drops-title">
    <h3 id="drops-title" class="font-bold text-[13.5px]">What if one drops out</h3>
    <p class="note" data-testid="survives">
      Any one string may go up to
      <Fig
        ptr="/network/oneOut/survivesA"
        unit="A"
        label="any one string may drop out up to"
        size={15}
      />{#if session.result?.network?.oneOut.survivesAcW}, <Fig
          ptr="/network/oneOut/survivesAcW"
          unit="W"
          label="the same as AC watts"
          size={15}
        /> of AC{/if}.
      {drop ? '' : 'Press a unit to see it go.'}
    </p>
    {#if drop}
      <div data-testid="cascade">
        <p class="sentence">{drop.sentence}.</p>
        <ol>
          {#each drop.steps as step, i (i)}
            <li class={i === bench.step ? 'at' : i > bench.step ? 'to-come' : ''}>
              <button
                type="button"
                onclick={() => (bench.step = i)}
                aria-current={i === bench.step ? 'step' : undefined}>{step.reason}</button
              >
            </li>
          {/each}
        </ol>
        <p class="note" data-testid="left">
          {#if drop.blackout}Nothing is left.{:else}Left: {drop.remaining.length === 1 ? 'string' : 'strings'}
            {drop.remaining.map(stringName).join(', ')}{drop.leftAcW !== null ? `, ${num(drop.leftAcW)} W of AC` : ''}, {say(
              drop.leftWh,
              'Wh',
            )} usable.{/if}
        </p>
        <div class="flex gap-2 mt-1">
          <button type="button" class="btn btn-outline btn-xs" onclick={() => (bench.step = 0)}>Play again</button>
          <button
            type="button"
            class="btn btn-outline btn-xs"
            onclick={() => {
              bench.out = null
              bench.step = 0
            }}>All strings in</button
          >
        </div>
      </div>
    {/if}
  </section>
{/if}

<style>
  .drops {
    padding-bottom: 8px;
    margin-bottom: 10px;
    border-bottom: 1px solid var(--hair);
  }
  .sentence {
    font-weight: 600;
    font-size: 13px;
    margin-top: 4px;
  }
  ol {
    font-size: 12.5px;
    counter-reset: step;
  }
  li button {
    min-height: 24px;
    cursor: pointer;
    text-align: left;
  }
  .at button {
    font-weight: 700;
    border-left: 2px solid var(--copper);
    padding-left: 6px;
  }
  .to-come button {
    color: var(--ink-3);
  }
  @media (max-width: 939px) {
    li button,
    .drops .btn {
      min-height: 44px;
    }
  }
</style>
