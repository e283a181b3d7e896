<script lang="ts">
  /** When a load runs: bars over the day's hours. A load given by hours has no time of its own: a hollow bar, broken unless it is the whole day. */
  let {
    windows,
    hours,
    hatched = false,
  }: { windows: number[][] | null; hours: number | null; hatched?: boolean } = $props()
  const bars = $derived(
    (windows ?? []).flatMap(([from, to]) =>
      to > from
        ? [[from, to]]
        : [
            [from, 24],
            [0, to],
          ],
    ),
  )
</script>

<svg viewBox="0 0 240 20" preserveAspectRatio="none" aria-hidden="true" class="w-full h-full">
  {#each [0, 30, 60, 90, 120, 150, 180, 210, 240] as x (x)}<line
      x1={x}
      x2={x}
      y1="0"
      y2="20"
      stroke="var(--grid)"
      vector-effect="non-scaling-stroke"
    />{/each}
  {#each bars as [from, to] (from)}
    <rect
      x={from * 10}
      y="5"
      width={Math.max(0.9, (to - from) * 10)}
      height="10"
      fill={hatched ? 'var(--hair)' : 'var(--ink)'}
      stroke={hatched ? 'var(--ink)' : 'none'}
      vector-effect="non-scaling-stroke"
    />
  {/each}
  {#if !windows && hours}
    <rect
      x="0.5"
      y="7"
      width="239"
      height="6"
      fill="none"
      stroke="var(--ink-3)"
      stroke-dasharray={hours < 24 ? '4 3' : undefined}
      vector-effect="non-scaling-stroke"
    />
  {/if}
</svg>
