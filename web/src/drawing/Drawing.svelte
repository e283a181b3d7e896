<script lang="ts">
  import type { Snippet } from 'svelte'
  import { nudge } from './nudge'
  import { stops } from './stops'

  /** The paper a drawing stands on: as wide as its place, one tab stop, named. */
  interface Props {
    name: string
    /** A number, or left out to fill what the sheet leaves. */
    height?: number
    width?: number
    /** Below this width the drawing scrolls by itself. */
    least?: number
    fill?: boolean
    /** Least height of one that fills [px]. */
    floor?: number
    children: Snippet
  }
  let {
    name,
    height = $bindable(),
    width = $bindable(900),
    least = 0,
    fill = false,
    floor = 218,
    children,
  }: Props = $props()
  let room = $state(0)
  let tall = $state(0)
  $effect(() => {
    if (room > 0) width = Math.max(room, least)
    if (fill && tall > 0) height = tall
  })
</script>

<div
  class={['paper', fill && 'fill']}
  style:min-height={fill ? `${floor}px` : undefined}
  bind:clientWidth={room}
  bind:clientHeight={tall}
>
  <!-- One tab stop: the arrows reach the figures inside. -->
  <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
  <svg
    {width}
    {height}
    viewBox="0 0 {width} {height ?? 0}"
    role="group"
    aria-label="{name}. Arrow keys reach its figures."
    tabindex="0"
    use:stops
    use:nudge
  >
    {@render children()}
  </svg>
</div>

<style>
  .paper {
    overflow-x: auto;
    overflow-y: hidden;
  }
  svg {
    display: block;
  }
  svg:focus-visible {
    outline-offset: -2px;
  }
</style>
