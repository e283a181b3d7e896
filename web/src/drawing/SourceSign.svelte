<script lang="ts">
  import type { Schemas } from '../api/client'

  /** A source drawn as what it is: modules, an engine with its belt, a plug, a generator, a wind wheel. 33 px wide, about its middle. */
  let { kind, x, y }: { kind: Schemas['SourceKind']; x: number; y: number } = $props()
</script>

<g transform="translate({x} {y})" fill="var(--sheet)" stroke="var(--ink)" stroke-width="1">
  {#if kind === 'solar'}
    <path d="M6 -7 H32 L26 7 H0 Z M4 -2.3 H30 M2 2.3 H28 M14.7 -7 L8.7 7 M23.3 -7 L17.3 7" />
  {:else if kind === 'alternator' || kind === 'dc-dc'}
    <rect x="10" y="-7" width="20" height="14" />
    <path d="M14 -7 V-10 H26 V-7 M14 -3 V4 M18 -3 V4 M22 -3 V4 M26 -3 V4" />
    <circle cx="5" cy="3" r="3.6" />
    <path d="M10 6 H5 M10 -1 H5" />
  {:else if kind === 'mains'}
    <path d="M13 -7 H20 A7 7 0 0 1 20 7 H13 Z M13 -4 H5 M13 4 H5 M27 0 H33" />
  {:else if kind === 'generator'}
    <rect x="3" y="-8" width="27" height="16" />
    <circle cx="11" cy="0" r="4.5" />
    <path d="M20 -4 H27 M20 0 H27 M20 4 H27" />
  {:else}
    <path d="M16 8 V-1 M16 -1 L16 -9 M16 -1 L9 4 M16 -1 L23 4 M11 8 H21" />
    <circle cx="16" cy="-1" r="1.6" />
  {/if}
</g>
