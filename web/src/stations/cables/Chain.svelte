<script lang="ts">
  import { session } from '../../app/session.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import { num, say } from '../../ui/quantity'

  /** What stops first between the cells and the outlet: each element's AC watts as a line, the bottleneck on top. */
  const chain = $derived(session.result?.chain ?? null)
  let atStart = $state(false)
  const links = $derived(chain ? (atStart && chain.atStart.length > 0 ? chain.atStart : chain.continuous) : [])
  const asked = $derived(atStart ? (session.result?.loads?.surgeDemandW ?? 0) : (session.result?.loads?.peakAcW ?? 0))
  const most = $derived(Math.max(1, asked, ...links.slice(0, 5).map((l) => l.acW)) * 1.05)
</script>

{#if chain && links.length > 0}
  <section aria-labelledby="chain-title" class="chain" data-testid="chain">
    <h3 id="chain-title" class="font-bold text-[13.5px]">What stops first</h3>
    <p class="note">{chain.sentence}.</p>
    {#if chain.atStart.length > 0}
      <p class="flex gap-3 text-[12.5px]">
        <button
          type="button"
          class={atStart ? 'link-copper' : 'now'}
          aria-pressed={!atStart}
          onclick={() => (atStart = false)}>for good</button
        >
        <button
          type="button"
          class={atStart ? 'now' : 'link-copper'}
          aria-pressed={atStart}
          onclick={() => (atStart = true)}>for {say(chain.startSeconds!, 's')} of a start</button
        >
      </p>
    {/if}
    <ul>
      {#each links as link, i (link.name)}
        <li>
          <span class="row"
            ><span class={i === 0 ? 'font-bold' : ''}>{link.name === 'bank' ? 'the batteries' : link.name}</span><span
              class="fig">{num(link.acW)} W</span
            ></span
          >
          <span class="bar" aria-hidden="true"
            ><span style:width="{Math.min(100, (link.acW / most) * 100)}%" class={[link.acW < asked && 'short']}
            ></span><i style:left="{Math.min(100, (asked / most) * 100)}%"></i></span
          >
        </li>
      {/each}
    </ul>
    <p class="caption">
      The line marks what the loads ask for, {num(asked)} W.{#if chain.unrated.length > 0}
        Without a rating: {chain.unrated.join(', ')}.{/if}
    </p>
    <AsTable
      heads={['element', 'AC watts', 'its limit', 'asked of it']}
      rows={[]}
      plain={links.map((l) => [
        l.name === 'bank' ? 'the batteries' : l.name,
        `${num(l.acW)} W`,
        l.limitA === null ? '' : say(l.limitA, 'A'),
        l.askedA === null ? '' : say(l.askedA, 'A'),
      ])}
    />
  </section>
{/if}

<style>
  .chain {
    border-top: 1px solid var(--hair);
    padding-top: 10px;
    margin-top: 10px;
  }
  p button {
    min-height: 26px;
    cursor: pointer;
  }
  .now {
    font-weight: 700;
  }
  .row {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    font-size: 12.5px;
    margin-top: 3px;
  }
  .bar {
    display: block;
    position: relative;
    height: 6px;
    background: var(--grid);
  }
  .bar span {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--ink-3);
  }
  .bar .short {
    background: var(--ink);
  }
  .bar i {
    position: absolute;
    top: -2px;
    bottom: -2px;
    width: 2px;
    background: var(--ink);
  }
  @media (max-width: 939px) {
    p button {
      min-height: 44px;
    }
  }
</style>
