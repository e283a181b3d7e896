<script lang="ts">
  /** The hatches of sources and states, with a prefix so that each drawing has its own. */
  let { id }: { id: string } = $props()
</script>

<defs>
  <pattern id="{id}-slanted" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <rect width="5" height="5" fill="var(--sheet)" /><line x1="1" x2="1" y1="0" y2="5" stroke="var(--ink-3)" />
  </pattern>
  <pattern id="{id}-upright" width="4" height="4" patternUnits="userSpaceOnUse">
    <rect width="4" height="4" fill="var(--sheet)" /><line x1="1" x2="1" y1="0" y2="4" stroke="var(--ink)" />
  </pattern>
  <pattern id="{id}-level" width="4" height="4" patternUnits="userSpaceOnUse">
    <rect width="4" height="4" fill="var(--sheet)" /><line x1="0" x2="4" y1="1" y2="1" stroke="var(--ink)" />
  </pattern>
  <pattern id="{id}-dense" width="4" height="4" patternUnits="userSpaceOnUse">
    <rect width="4" height="4" fill="var(--sheet)" /><path d="M0 0 L4 4 M4 0 L0 4" stroke="var(--ink-3)" />
  </pattern>
  <pattern id="{id}-look" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <rect width="5" height="5" fill="var(--sheet)" /><line
      x1="1"
      x2="1"
      y1="0"
      y2="5"
      stroke="var(--ink)"
      stroke-width="1.6"
    />
  </pattern>
</defs>
