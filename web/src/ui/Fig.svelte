<script lang="ts">
  import { guessing } from '../app/guessing.svelte'
  import { session } from '../app/session.svelte'

  /** A figure of the Evaluation. Pressing it opens its working. */
  interface Props {
    ptr: string
    unit: string
    label: string
    size?: number
    id?: string
  }
  let { ptr, unit, label, size = 16, id }: Props = $props()
  const value = $derived(session.figure(ptr))
  const shown = $derived(value === null ? null : session.show(value, unit))
  const open = $derived(session.selected === session.full(ptr) && !session.aside)
</script>

{#if shown && guessing.covers(session.full(ptr))}
  <button
    type="button"
    class="fig figure covered"
    style:font-size="{size}px"
    data-covered={ptr}
    aria-label="{label}: covered. Guess first"
    onclick={() => guessing.press(session.full(ptr))}
    >guess{#if shown.unit}<span class="unit">{' ' + shown.unit}</span>{/if}</button
  >
{:else if shown}
  <button
    type="button"
    {id}
    class={['fig figure', open && 'open']}
    style:font-size="{size}px"
    data-ptr={ptr}
    aria-label="{label}: {shown.text} {shown.unit}. Show its working"
    aria-pressed={open}
    onclick={() => session.select(ptr)}
  >
    {shown.text}{#if shown.unit}<span class="unit">{' ' + shown.unit}</span>{/if}
  </button>
{:else}
  <span class="fig none" style:font-size="{size}px" data-ptr={ptr} aria-label="{label}: not worked out">–</span>
{/if}

<style>
  .figure {
    cursor: pointer;
    white-space: nowrap;
    line-height: 1.1;
    min-height: 24px;
    padding: 0 2px;
    margin: 0 -2px;
    border: 1px solid transparent;
  }
  .figure:hover {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .covered {
    border: 1px dashed var(--ink-3);
    color: var(--copper-text);
  }
  .open {
    border-color: var(--copper);
  }
  .unit {
    font-size: max(0.72em, 11px);
    font-weight: 600;
  }
  .none {
    color: var(--ink-3);
  }
</style>
