<script lang="ts">
  import { guessing } from '../app/guessing.svelte'
  import { session } from '../app/session.svelte'

  /** A figure of the Evaluation inside a drawing. Pressing it opens its working. */
  interface Props {
    ptr: string
    unit: string
    label: string
    x: number
    y: number
    size?: number
    anchor?: 'start' | 'middle' | 'end'
    /** Words in the plain face after the figure. */
    after?: string
    /** A word in the plain face before it. */
    before?: string
    fill?: string
    /** Gives way to other texts. */
    give?: boolean
  }
  let {
    ptr,
    unit,
    label,
    x,
    y,
    size = 14,
    anchor = 'start',
    before = '',
    after = '',
    fill = 'var(--ink)',
    give = false,
  }: Props = $props()
  const value = $derived(session.figure(ptr))
  const shown = $derived(value === null ? null : session.show(value, unit))
  const covered = $derived(guessing.covers(session.full(ptr)))
  const open = $derived(session.selected === session.full(ptr) && !session.aside)
</script>

{#if shown}
  <text
    {x}
    {y}
    text-anchor={anchor}
    class={['fig stop', open && 'open']}
    style:font-size="{size}px"
    style:fill
    role="button"
    tabindex="-1"
    data-stop
    data-give={give || undefined}
    data-ptr={ptr}
    aria-label={covered
      ? `${label}: covered. Guess first`
      : `${label}: ${before ? `${before} ` : ''}${shown.text} ${shown.unit}${after ? ` ${after}` : ''}. Show its working`}
    data-covered={covered ? ptr : undefined}
    onclick={() => (covered ? guessing.press(session.full(ptr)) : session.select(ptr))}
    onkeydown={() => {}}
    >{#if before}<tspan class="after">{before + ' '}</tspan>{/if}{covered ? 'guess' : shown.text}<tspan
      style:font-size="{Math.max(11, size * 0.72)}px">{' ' + shown.unit}</tspan
    >{#if after}<tspan class="after">{' ' + after}</tspan>{/if}</text
  >
{/if}

<style>
  .stop {
    cursor: pointer;
  }
  .stop:hover {
    text-decoration: underline dotted;
  }
  .open {
    text-decoration: underline;
    text-decoration-color: var(--copper);
    text-decoration-thickness: 2px;
    text-underline-offset: 3px;
  }
  .after {
    font-family: 'Badger Digits', 'Badger Words', 'Badger Signs', sans-serif;
    font-stretch: 100%;
    font-weight: 400;
    font-size: 11.5px;
    fill: var(--ink-2);
  }
</style>
