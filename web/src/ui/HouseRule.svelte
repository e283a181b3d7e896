<script lang="ts">
  import type { HouseRule } from '../api/client'
  import { session } from '../app/session.svelte'

  /** The house rule behind a figure: what the other schools would say, to be taken with one press. */
  let { rule }: { rule: HouseRule } = $props()
  const own = $derived(session.design!.houseRules.own[rule.id] as string | number | undefined)
  const set = $derived(session.design!.houseRules.set)
  const schools = $derived([
    { name: 'cautious' as const, value: rule.cautious },
    { name: 'typical' as const, value: rule.typical },
    { name: 'lean' as const, value: rule.lean },
  ])
  const current = $derived(own === undefined ? schools.find((s) => s.name === set)!.value : String(own))

  function pretty(value: string): string {
    const number = Number(value)
    if (!Number.isFinite(number)) return value.replace(/-/g, ' ')
    return rule.unit === 'fraction'
      ? `${+(number * 100).toFixed(1)} %`
      : `${number} ${rule.unit === 'per hour' ? 'C' : rule.unit}`
  }

  function take(value: string | null) {
    const rest = { ...session.design!.houseRules.own } as Record<string, unknown>
    delete rest[rule.id]
    if (value !== null) rest[rule.id] = Number.isFinite(Number(value)) ? Number(value) : value
    session.edit({ path: '/houseRules/own', value: rest }, true)
  }
  /** What the other schools say, each value once. */
  const others = $derived(
    schools.filter(
      (s, i) =>
        Number(s.value) !== Number(current) &&
        s.value !== current &&
        schools.findIndex((o) => o.value === s.value) === i,
    ),
  )
</script>

<div class="text-[12.5px]">
  <div class="caption">House rule</div>
  <p class="leading-snug">
    {rule.label}: <b class="text-(--copper-text)">{pretty(current)}</b>{own === undefined ? '' : ', your own'}
  </p>
  <p class="caption leading-snug">{rule.sentence}</p>
  <p class="flex flex-wrap gap-x-3">
    {#each others as school (school.name)}
      <button type="button" class="link-copper min-h-6" onclick={() => take(school.value)}
        >{school.name}: {pretty(school.value)}</button
      >
    {/each}
    {#if own !== undefined}<button type="button" class="link-copper min-h-6" onclick={() => take(null)}
        >back to the set</button
      >{/if}
  </p>
</div>
