<script lang="ts">
  /** Severity is density of ink: solid wrong, striped worth a look, an outline for what fits. The word goes with it. */
  interface Props {
    kind: 'wrong' | 'look' | 'fits' | 'none'
    size?: number
  }
  let { kind, size = 10 }: Props = $props()
  const words = { wrong: 'wrong', look: 'to look at', fits: 'fits', none: 'not worked out yet' }
</script>

<svg width={size} height={size} viewBox="0 0 10 10" role="img" aria-label={words[kind]} class="inline-block shrink-0">
  {#if kind === 'wrong'}
    <rect width="10" height="10" fill="var(--ink)" />
  {:else if kind === 'look'}
    <rect x="0.5" y="0.5" width="9" height="9" fill="none" stroke="var(--ink)" />
    <path d="M0.5 6.5 L6.5 0.5 M0.5 9.5 L9.5 0.5 M3.5 9.5 L9.5 3.5" stroke="var(--ink)" stroke-width="1.3" />
  {:else}
    <rect
      x="1"
      y="1"
      width="8"
      height="8"
      fill="none"
      stroke="var(--ink-3)"
      stroke-dasharray={kind === 'none' ? '1.5 1.5' : undefined}
    />
  {/if}
</svg>
