<script lang="ts">
  import { coreOf } from './geometry'

  /** A straight conductor: body at its true thickness, bright core the share of its ampacity in use, by area. */
  interface Props {
    x1: number
    y1: number
    x2: number
    y2: number
    /** Thickness on paper [px]. */
    thick: number
    /** Share of the ampacity in use; over 1 it is drawn in ink. */
    share: number
    conductors?: number
    title?: string
  }
  let { x1, y1, x2, y2, thick, share, conductors = 1, title }: Props = $props()
  const level = $derived(y1 === y2)
  const body = $derived(Math.max(1.5, thick))
  const core = $derived(coreOf(body, share))
  const rows = $derived(Array.from({ length: conductors }, (_, i) => (i - (conductors - 1) / 2) * (body + 1)))
</script>

<g>
  {#if title}<title>{title}</title>{/if}
  {#each rows as off (off)}
    <line
      x1={level ? x1 : x1 + off}
      y1={level ? y1 + off : y1}
      x2={level ? x2 : x2 + off}
      y2={level ? y2 + off : y2}
      stroke="var(--copper-body)"
      stroke-width={body}
    />
    <line
      x1={level ? x1 : x1 + off}
      y1={level ? y1 + off : y1}
      x2={level ? x2 : x2 + off}
      y2={level ? y2 + off : y2}
      stroke={share > 1.000001 ? 'var(--ink)' : 'var(--copper)'}
      stroke-width={Math.max(1, core)}
    />
  {/each}
</g>
