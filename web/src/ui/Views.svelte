<script lang="ts" generics="T extends string">
  import type { Snippet } from 'svelte'

  /** The ways a station is looked at, beside its headline. */
  interface Props {
    name: string
    views: readonly (readonly [T, string])[]
    value: T
    onpick: (view: T) => void
    /** A row of its own below the headline. */
    below?: boolean
    /** What stands beside them and is no view. */
    children?: Snippet
  }
  let { name, views, value, onpick, below = false, children }: Props = $props()
</script>

<div class={['views', below && 'below']} role="group" aria-label={name}>
  {#each views as [view, word] (view)}
    <button type="button" class="link-copper" aria-pressed={value === view} onclick={() => onpick(view)}>{word}</button>
  {/each}
  {#if children}{@render children()}{/if}
</div>

<style>
  .views {
    align-self: flex-end;
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
  }
  @media (min-width: 1150px) {
    .views:not(.below) {
      margin-top: -27px;
    }
  }
  .views :global(button) {
    min-height: 26px;
    font-size: 12.5px;
    background: var(--sheet);
    padding: 0 2px;
  }
  .views [aria-pressed='true'] {
    color: var(--ink);
    text-decoration-thickness: 2px;
  }
  @media (max-width: 939px) {
    .views :global(button) {
      min-height: 44px;
    }
  }
</style>
