<script lang="ts">
  /** Days of the week, 0 Monday. All of them is the same as none said; the last one stays. */
  let { days, onpick }: { days: readonly number[] | null; onpick: (days: number[] | null) => void } = $props()

  function toggle(day: number) {
    const now = days ?? [0, 1, 2, 3, 4, 5, 6]
    const next = now.includes(day) ? now.filter((d) => d !== day) : [...now, day].toSorted((a, b) => a - b)
    if (next.length > 0) onpick(next.length === 7 ? null : next)
  }
</script>

<div class="week" role="group" aria-label="Days of the week">
  {#each ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as name, day (day)}
    <label
      ><input
        type="checkbox"
        class="checkbox checkbox-xs"
        checked={days?.includes(day) ?? true}
        data-weekday={day}
        onchange={() => toggle(day)}
      />
      {name}</label
    >
  {/each}
</div>

<style>
  .week {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
  }
  label {
    display: inline-flex;
    align-items: center;
    gap: 4px;
    min-height: 26px;
    font-size: 12.5px;
    white-space: nowrap;
  }
  @media (max-width: 939px) {
    label {
      min-height: 44px;
    }
  }
</style>
