<script lang="ts">
  import type { DesignCard } from '../api/client'
  import Mark from '../ui/Mark.svelte'
  import { say } from '../ui/quantity'
  import Miniature from './Miniature.svelte'

  /** A design on the shelf: its own path in small, and what tells it apart. */
  interface Props {
    card: DesignCard
    bin: boolean
    oncopy: () => void
    onremove: () => void
    onrestore: () => void
    onrename: (name: string) => void
  }
  let { card, bin, oncopy, onremove, onrestore, onrename }: Props = $props()
  let renaming = $state(false)
  const date = $derived(
    new Date(card.updatedUtc).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' }),
  )

  function named(e: Event) {
    renaming = false
    const name = [...(e.currentTarget as HTMLInputElement).value.trim()].slice(0, 80).join('')
    if (name && name !== card.name) onrename(name)
  }
</script>

{#snippet face()}
  <span class="font-bold text-[14px] truncate"
    >{card.name}{#if card.demo}<span class="font-normal text-(--ink-2)">, demo</span>{/if}</span
  >
  {#if !card.unreadable}<Miniature {card} />{/if}
  <span class="flex items-baseline gap-4">
    {#if card.systemV}<span class="fig text-[22px]">{card.systemV} <small>V</small></span>{/if}
    {#if card.usableWh}<span class="fig text-[22px]">{say(card.usableWh, 'Wh')}</span>{/if}
    <span class="fig text-[16px]">{card.arrangement}</span>
  </span>
  <span class={['note flex items-center gap-1.5', card.unreadable && 'flex-wrap']}>
    {#if card.unreadable}
      <span>
        <b>Cannot be read</b>: {card.unreadable}. {card.setAside
          ? `Its text was set aside as ${card.setAside} in the data folder.`
          : 'Its text can be taken out below.'}
      </span>
    {:else if !card.ready}
      <span class="caption" aria-busy="true">being worked out…</span>
    {:else if card.firstToDo}
      {card.firstToDo}
    {:else if card.wrong}
      <Mark kind="wrong" /> {card.wrong} wrong, {card.toLookAt} to look at
    {:else if card.toLookAt}
      <Mark kind="look" /> {card.toLookAt} to look at
    {:else}
      fits <Mark kind="fits" size={8} />
    {/if}
    <span class="ml-auto caption">{date}</span>
  </span>
{/snippet}

<article class="card-frame" data-design={card.id}>
  {#if renaming}
    <div class="face">
      <!-- svelte-ignore a11y_autofocus -->
      <input
        class="input input-xs"
        aria-label="New name"
        value={card.name}
        maxlength="160"
        autofocus
        onchange={named}
        onblur={() => (renaming = false)}
        onkeydown={(e) => e.key === 'Escape' && (renaming = false)}
      />
    </div>
  {:else if bin || card.unreadable}
    <div class="face">{@render face()}</div>
  {:else}
    <a class="face" href="#/d/{card.id}/bank">{@render face()}</a>
  {/if}
  <footer>
    {#if bin}
      <button type="button" class="link-copper" onclick={onrestore}
        >Back to the shelf<span class="sr-only">: {card.name}</span></button
      >
    {:else}
      {#if !card.unreadable}
        <button type="button" class="link-copper" onclick={oncopy}>Copy<span class="sr-only"> {card.name}</span></button
        >
        <button type="button" class="link-copper" onclick={() => (renaming = true)}
          >Rename<span class="sr-only"> {card.name}</span></button
        >
      {/if}
      <a class="link-copper" href="/api/designs/{card.id}/file" download
        >File<span class="sr-only"> of {card.name}</span></a
      >
      <button type="button" class="link-copper ml-auto" onclick={onremove}
        >Delete<span class="sr-only"> {card.name}</span></button
      >
    {/if}
  </footer>
</article>

<style>
  .card-frame {
    background: var(--sheet);
    border: 1px solid var(--ink-3);
    content-visibility: auto;
    contain-intrinsic-size: 300px 200px;
  }
  .card-frame:hover {
    border-color: var(--ink);
  }
  .face {
    display: flex;
    flex-direction: column;
    gap: 5px;
    padding: 12px 14px 8px;
  }
  a.face:hover {
    background: var(--tint);
  }
  footer {
    align-items: center;
    display: flex;
    gap: 14px;
    padding: 2px 14px 8px;
    font-size: 12.5px;
  }
  footer > :global(*) {
    min-height: 24px;
    line-height: 24px;
  }
</style>
