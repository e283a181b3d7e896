<script lang="ts">
  import { onMount } from 'svelte'
  import { api } from '../api/client'
  import type { DesignCard } from '../api/client'
  import { session } from '../app/session.svelte'
  import { builds } from '../builds/bench.svelte'
  import ChoiceField from '../ui/ChoiceField.svelte'
  import { withChanges } from '../ui/pointer'
  import { year } from './year.svelte'

  /** What the dashed line is: this design with a remedy, by another school, built otherwise, or another design of the shelf. */
  let cards = $state.raw<DesignCard[]>([])
  onMount(async () => {
    try {
      cards = (await api.designs()).filter((c) => c.id !== session.id)
    } catch {
      // Without the shelf only remedies are to be compared with.
    }
  })
  const remedies = $derived([
    ...(year.pair ? [year.pair] : []),
    ...year.remedies.slice(1).filter((r) => r.changes.length > 0),
  ])
  const schools = ['cautious', 'typical', 'lean'] as const
  const beside = $derived(
    builds.of === builds.here
      ? builds.list.filter((b) => b.key !== builds.presentKey && builds.keys.includes(b.key))
      : [],
  )
  const SEARCH = 'search for builds'
  const options = $derived([
    ...remedies.map((r) => ({ value: `remedy ${r.title}`, text: `with: ${r.title}` })),
    ...schools
      .filter((s) => s !== session.design!.houseRules.set)
      .map((s) => ({ value: `school ${s}`, text: `by ${s} rules` })),
    ...beside.map((b) => ({ value: `build ${b.key}`, text: `built: ${b.name}` })),
    ...(beside.length === 0 ? [{ value: SEARCH, text: 'find builds to compare…' }] : []),
    ...cards.map((c) => ({ value: `design ${c.id}`, text: c.name })),
  ])

  async function pick(key: string | null) {
    if (!key) return year.alone()
    const remedy = remedies.find((r) => `remedy ${r.title}` === key)
    if (remedy) return year.compare(key, remedy.title, withChanges(session.worked!, remedy.changes), session.bankIndex)
    const school = schools.find((s) => `school ${s}` === key)
    if (school)
      return year.compare(
        key,
        `${school} rules`,
        withChanges(session.worked!, [{ path: '/houseRules/set', value: school }]),
        session.bankIndex,
      )
    if (key === SEARCH) return builds.search()
    const build = beside.find((b) => `build ${b.key}` === key)
    if (build) {
      const changes = await builds.changes(build)
      return year.compare(key, build.name, withChanges(session.worked!, changes), session.bankIndex)
    }
    const card = cards.find((c) => `design ${c.id}` === key)
    if (!card) return
    try {
      const answer = await api.design(card.id)
      await year.compare(key, card.name, answer.design, 0)
    } catch {
      year.trouble = 'That design cannot be had at the moment.'
    }
  }
</script>

<ChoiceField
  label="against, dashed"
  path="/against"
  value={year.against?.key ?? null}
  {options}
  none="nothing"
  width="170px"
  onpick={(key) => void pick(key)}
/>
