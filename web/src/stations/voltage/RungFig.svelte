<script lang="ts">
  import type { LadderRung } from '../../api/client'
  import { session } from '../../app/session.svelte'

  /** A figure of a rung. Pressing it opens its working, worked out at that voltage. */
  interface Props {
    rung: LadderRung
    ptr: string
    value: number | null
    unit: string
    label: string
    size?: number
    /** Instead of the figure, for a size or a name. */
    words?: string | null
    /** Length of its bar, 0 to 1, and where a limit stands on it. */
    bar?: number | null
    mark?: number | null
  }
  let { rung, ptr, value, unit, label, size = 15, words = null, bar = null, mark = null }: Props = $props()
  const shown = $derived(value === null ? null : session.show(value, unit))
  const variant = $derived(rung.here ? null : { label: `at ${rung.systemV} V`, changes: rung.changes })
  const open = $derived(
    session.selected === session.base + ptr && (session.aside?.label ?? null) === (variant?.label ?? null),
  )
</script>

<span class="cell">
  {#if shown}
    <button
      type="button"
      class={['fig', open && 'open']}
      style:font-size="{size}px"
      data-rung="{rung.systemV}{ptr}"
      aria-label="{label} at {rung.systemV} V: {words ?? `${shown.text} ${shown.unit}`}. Show its working"
      onclick={() => session.select(ptr, false, variant)}
      >{words ?? shown.text}{#if !words && shown.unit}<span class="unit">{' ' + shown.unit}</span>{/if}</button
    >
  {:else}<span class="caption">{words ?? '–'}</span>{/if}
  {#if bar !== null}
    <span class="bar" aria-hidden="true"
      ><i style:width="{Math.min(1, bar) * 100}%"></i>{#if mark !== null}<b style:left="{Math.min(1, mark) * 100}%"
        ></b>{/if}</span
    >
  {/if}
</span>

<style>
  .cell {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr);
    align-items: center;
    gap: 8px;
  }
  button {
    cursor: pointer;
    white-space: nowrap;
    min-height: 24px;
    padding: 0 2px;
    margin: 0 -2px;
    text-align: left;
    border: 1px solid transparent;
  }
  button:hover {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  .open {
    border-color: var(--copper);
  }
  .unit {
    font-size: max(0.72em, 11px);
    font-weight: 600;
  }
  .bar {
    position: relative;
    height: 7px;
    background: var(--grid);
    min-width: 20px;
  }
  .bar i {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--ink);
  }
  .bar b {
    position: absolute;
    top: -4px;
    bottom: -4px;
    width: 2px;
    background: var(--copper);
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
    }
    .bar {
      display: none;
    }
  }
</style>
