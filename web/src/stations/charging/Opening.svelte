<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { say } from '../../ui/quantity'

  /** What an opening BMS leaves while the bank is charged: what goes dark, what happens to each source, what keeps it from happening. */
  const opening = $derived(session.result!.charging!.opening)
</script>

{#if opening}
  <details class="opening" data-testid="opening">
    <summary>When the BMS opens while it charges</summary>
    <p>
      <b class="fig">{say(opening.amps, 'A')}</b> have nowhere to go at once, and
      {#if opening.dark.length > 0}<b>{opening.dark.join(', ')}</b> go dark{opening.darkW > 0
          ? `, up to ${say(opening.darkW, 'W')}`
          : ''}{:else}the bus is dark{/if}.
    </p>
    <ul>
      {#each opening.words as word (word)}<li>{word}.</li>{/each}
    </ul>
    <p>What keeps it from happening: {opening.remedies.join('; ')}.</p>
  </details>
{/if}

<style>
  .opening {
    border-top: 1px solid var(--hair);
    padding-top: 6px;
    margin-top: 8px;
    font-size: 12.5px;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 24px;
  }
  li {
    border-top: 1px solid var(--grid);
    padding: 2px 0;
  }
  @media (max-width: 939px) {
    summary {
      min-height: 44px;
    }
  }
</style>
