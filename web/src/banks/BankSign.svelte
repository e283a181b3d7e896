<script lang="ts">
  import { session } from '../app/session.svelte'
  import { ahOfUnits } from './banks'

  /** A bank's units as boxes whose area is kWh, one scale for all banks of the design. */
  let { index, height = 38, most = 66 }: { index: number; height?: number; most?: number } = $props()

  const of = (i: number) => session.evaluation?.banks[i]?.bank ?? null
  const greatest = $derived(
    Math.max(1, ...session.evaluation!.banks.map((b) => b.bank?.holds.ratedWh ?? 0), of(index)?.holds.ratedWh ?? 0),
  )
  const bank = $derived(of(index))
  const strings = $derived.by(() => {
    const document = session.design?.banks[index]
    if (!bank || !document) return []
    const units = ahOfUnits(document, bank.layout.series, bank.layout.parallel, bank.unit.ah)
    const width = Math.max(4, (bank.holds.ratedWh / greatest) * most)
    const wide = units.map((u) => Math.max(...u))
    const sum = wide.reduce((a, b) => a + b, 0)
    let x = 0
    return units.map((u, s) => {
      const at = { x, width: (wide[s] / sum) * width, units: u.map((ah) => (ah / sum) * width) }
      x += at.width
      return at
    })
  })
  const width = $derived(strings.length ? strings.at(-1)!.x + strings.at(-1)!.width : 20)
</script>

<svg width={width + 1} {height} aria-hidden="true" class="bare">
  {#each strings as s, i (i)}
    {#each s.units as unit, u (u)}
      {@const tall = height / s.units.length}
      <rect
        x={s.x + 0.5}
        y={u * tall + 0.5}
        width={Math.max(1.5, unit - (strings.length > 1 ? 1 : 0))}
        height={Math.max(1.5, tall - 1)}
        fill="var(--unit, var(--page))"
        stroke="var(--ink)"
      />
    {/each}
  {:else}
    <rect x="0.5" y="0.5" width="19" height={height - 1} fill="none" stroke="var(--ink-3)" stroke-dasharray="3 3" />
  {/each}
</svg>
