<script lang="ts">
  /** The mark: a badger's face as a striped wedge. */
  let { size = 20 }: { size?: number } = $props()
</script>

<svg width={size} height={size} viewBox="0 0 20 20" aria-hidden="true" class="shrink-0">
  <path d="M2 2 H18 L12 18 H8 Z" fill="var(--ink)" />
  <path d="M5.4 2 H7.6 L9.2 14 H8.1 Z M12.4 2 H14.6 L11.9 14 H10.8 Z" fill="var(--page)" />
  <path d="M8.6 16 H11.4 L10.9 18 H9.1 Z" fill="var(--page)" />
</svg>
