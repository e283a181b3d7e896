<script lang="ts">
  import { said } from './differences'
  import { keeper, time } from './keeper.svelte'
  import { memory } from './memory.svelte'
  import { session } from './session.svelte'

  /** What is not kept and waits for a word: edits the server refused, edits a closed window left, a memory that could not be read. */
  const some = $derived(keeper.refused.length > 0 || keeper.offers.length > 0 || memory.setAside !== null)
</script>

{#if some}
  <section class="unkept" aria-label="Not kept" data-testid="unkept">
    {#each keeper.refused as edit (edit)}
      <p role="alert">
        <b>Not kept</b>
        <span class="what">{edit.changes.map(said).join('; ')}</span>
        <span>{edit.refused}</span>
        <span class="acts">
          <button type="button" class="link-copper" onclick={() => session.again(edit)}>Try again</button>
          <button type="button" class="link-copper" onclick={() => keeper.forgive(edit)}>Let it go</button>
        </span>
      </p>
    {/each}
    {#each keeper.offers as offer (offer)}
      <p role="status">
        <b>{offer.count} {offer.count === 1 ? 'edit' : 'edits'} of a window that was closed</b>
        <span
          >never kept, from {offer.at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
          {time(offer.at)}</span
        >
        <span class="acts">
          <button type="button" class="link-copper" onclick={() => session.takeUp(offer)}>Take up</button>
          <button type="button" class="link-copper" onclick={() => keeper.letGo(offer)}>Let go</button>
        </span>
      </p>
    {/each}
    {#if memory.setAside}
      <p role="status">
        <span>{memory.setAside}</span>
        <span class="acts"
          ><button type="button" class="link-copper" onclick={() => (memory.setAside = null)}>Read</button></span
        >
      </p>
    {/if}
  </section>
{/if}

<style>
  .unkept {
    border-block: 1px solid var(--ink);
    background: var(--sheet);
    padding: 4px 16px;
    font-size: 13px;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 12px;
    min-height: 26px;
  }
  .what {
    overflow-wrap: anywhere;
  }
  .acts {
    margin-left: auto;
    display: flex;
    gap: 14px;
  }
  .acts button {
    min-height: 24px;
    cursor: pointer;
  }
  @media (max-width: 939px) {
    .acts button {
      min-height: 44px;
    }
  }
</style>
