<script lang="ts">
  import { sheets } from './sheets.svelte'

  /** What may be done as it stands, and what not, with the reason. */
  const ledger = $derived(sheets.answer!.ledger)
  const may = $derived(ledger.acts.slice(0, 3))
  const bans = $derived(ledger.bans.slice(1))
  let whole = $state(false)
</script>

<section aria-label="What that means now" data-testid="means">
  <h2>What that means now</h2>
  {#if may.length > 0}<p data-may>
      <b>May be done:</b>
      {#each may as a, i (a.words)}{i > 0 ? '; ' : ''}<button
          type="button"
          class="act"
          onclick={() => sheets.take(a.keys[0] ?? null)}>{a.words}</button
        >{/each}.
    </p>{/if}
  {#if bans.length > 0}
    <p data-bans>
      <b>Nor now:</b>
      {#each whole ? bans : bans.slice(0, 2) as b, i (b.rule + b.key + i)}
        <button type="button" class="act" data-ban={b.rule} onclick={() => sheets.take(b.key)}>{b.sentence}.</button
        >{' '}
      {/each}
      {#if bans.length > 2}<button type="button" class="link-copper" onclick={() => (whole = !whole)}
          >{whole ? 'fewer' : `and ${bans.length - 2} more`}</button
        >{/if}
    </p>
  {:else if ledger.later.length > 0}
    <p data-later>
      <b>Later:</b>
      {ledger.later[0].sentence[0].toLowerCase() + ledger.later[0].sentence.slice(1)}.
    </p>
  {/if}
  {#if ledger.bans.length > 0}<p class="caption">
      A bank cannot be switched off: rings off, insulated tools, every positive covered.
    </p>{/if}
</section>

<style>
  section {
    font-size: 12.5px;
    color: var(--ink-2);
    padding-bottom: 8px;
  }
  h2 {
    font-size: 13px;
    font-weight: 700;
    color: var(--ink);
  }
  b {
    color: var(--ink);
  }
  p {
    margin-top: 2px;
  }
  .act {
    display: inline;
    text-align: left;
    cursor: pointer;
    font: inherit;
    color: inherit;
  }
  .act:hover {
    text-decoration: underline;
  }
</style>
