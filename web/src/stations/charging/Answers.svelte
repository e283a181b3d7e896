<script lang="ts">
  import type { ChargedDay } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { say } from '../../ui/quantity'
  import { WHOLE } from './months'

  /** How much panel, or how long the plug, balances the month that is shown. */
  let { day }: { day: ChargedDay } = $props()
</script>

{#if day.answers.length > 0 || day.balancingArrayW !== null}
  <p class="answers" data-testid="answers">
    <b>What balances {WHOLE[day.month - 1]}?</b>
    {#if day.balancingArrayW !== null}<span>panel alone <b class="fig">{say(day.balancingArrayW, 'W')}</b></span>{/if}
    {#each day.answers as answer (answer.label)}
      <span
        ><button type="button" class="link-copper" onclick={() => session.edit(answer.changes, true)}
          >{answer.label}</button
        >
        <span class="note">{answer.outcome}</span></span
      >
    {/each}
  </p>
{/if}

<style>
  .answers {
    display: flex;
    flex-wrap: wrap;
    gap: 0 12px;
    align-items: baseline;
    font-size: 12.5px;
  }
  button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
    }
  }
</style>
