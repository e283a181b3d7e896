<script lang="ts">
  import { sheets } from './sheets.svelte'

  /** The wiring drawing as it prints; pressing a part takes it in hand. */
  const drawn = $derived(sheets.answer!.drawing.sheets)
  let paper = $state<HTMLElement>()

  $effect(() => {
    void sheets.answer
    void sheets.sheet
    for (const old of paper?.querySelectorAll('.in-hand') ?? []) old.classList.remove('in-hand')
    if (!sheets.hand) return
    for (const part of paper?.querySelectorAll(`[data-key="${CSS.escape(sheets.hand)}"]`) ?? [])
      part.classList.add('in-hand')
  })

  function pick(e: MouseEvent) {
    const key = (e.target as Element).closest('[data-key]')?.getAttribute('data-key') ?? null
    if (!key || !sheets.rows.has(key)) return
    sheets.take(key)
    document.querySelector(`[data-row="${CSS.escape(key)}"]`)?.scrollIntoView({ block: 'nearest' })
  }
</script>

<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_noninteractive_element_interactions -->
<div bind:this={paper} class="drawing" role="group" aria-label="Wiring drawing" onclick={pick}>
  {#each drawn as s, i (i)}
    <!-- What stands in it is escaped where it is drawn. -->
    <!-- eslint-disable-next-line svelte/no-at-html-tags -->
    <div class={['one', i !== sheets.sheet && 'off']} data-sheet={i + 1}>{@html s.svg}</div>
  {/each}
</div>

<style>
  .drawing :global(svg) {
    display: block;
    width: 100%;
    /* Letters are read at their size; the paper scrolls where it has no room. */
    min-width: 880px;
    height: auto;
  }
  .drawing :global([data-key]) {
    cursor: pointer;
  }
  .drawing :global(.reach) {
    pointer-events: all;
  }
  .drawing :global(.w) {
    font-family: 'Badger Digits', 'Badger Words', 'Badger Signs', sans-serif;
  }
  .drawing :global(.f) {
    font-family: 'Badger Figures', 'Badger Signs', sans-serif;
    font-stretch: 75%;
    font-weight: 600;
    font-variant-numeric: tabular-nums;
  }
  .drawing :global(text) {
    fill: var(--ink);
    /* Lines behind a text stay off its letters. */
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: 3px;
    stroke-linejoin: round;
    pointer-events: none;
  }
  .drawing :global(text.faint) {
    fill: var(--ink-2);
  }
  .drawing :global(:is(.sheet, .device, .sleeve, .post)) {
    fill: var(--sheet);
  }
  .drawing :global(:is(.device, .box, .sleeve, .post, .ink-line)) {
    stroke: var(--ink);
  }
  .drawing :global(.faint-line) {
    stroke: var(--ink-3);
  }
  .drawing :global(.forbids) {
    fill: var(--ink);
  }
  .drawing :global(:is(.ordered, .here) > .body) {
    fill: var(--sheet);
    stroke: var(--ink-3);
  }
  .drawing :global(.planned > .body) {
    fill: var(--hair);
  }
  .drawing :global(.planned > .wire) {
    stroke: var(--hair);
  }
  .drawing :global(:is(.ordered, .here) > .wire) {
    stroke: var(--ink-3);
  }
  .drawing :global(.fitted > .body) {
    fill: var(--copper-body);
    stroke: var(--copper);
  }
  .drawing :global(.proven > .body) {
    fill: var(--copper);
    stroke: var(--copper);
  }
  .drawing :global(.proven > .wire) {
    stroke: var(--copper);
  }
  .drawing :global(.in-hand > .reach) {
    fill: var(--tint);
    stroke: var(--ink);
    stroke-width: 1;
  }
  .drawing :global(rect.in-hand) {
    fill: var(--tint);
    stroke-width: 3;
  }
  @media screen {
    .off {
      display: none;
    }
  }
  @media print {
    .drawing :global(svg) {
      min-width: 0;
      width: 100%;
      max-height: 100vh;
    }
    .one {
      page: across;
      break-inside: avoid;
      break-after: page;
    }
    .drawing :global(.in-hand > .reach) {
      fill: none;
      stroke: none;
    }
  }
</style>
