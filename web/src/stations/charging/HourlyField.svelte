<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { numbersOf } from './list'
  import { num, say } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'

  /** Watts at the bank in each hour of the day: 24 of them, typed or pasted with commas, spaces or lines between. */
  let { path, watts }: { path: string; watts: number[] | null } = $props()
  const full = $derived(session.base + path)
  const text = $derived((watts ?? []).map((w) => String(w)).join(' '))
  const whole = $derived((watts ?? []).reduce((sum, w) => sum + w, 0))

  function read(typed: string) {
    if (typed.trim() === '') {
      session.edit({ path: full, value: null })
      return {}
    }
    const list = numbersOf(typed)
    if (list.length !== 24) return { reason: `24 values are wanted, one an hour; these are ${list.length}` }
    if (list.some((w) => !(w >= 0 && w <= 1e6))) return { reason: 'each must be a number of watts, 0 or more' }
    session.edit({ path: full, value: list })
    return {
      understood: `${say(
        list.reduce((sum, w) => sum + w, 0),
        'Wh',
      )} a day`,
    }
  }
</script>

<TypedField
  label="watts of each hour, from 0:00 on (24 values)"
  {text}
  {read}
  {path}
  width="min(640px, 84vw)"
  faultsAt={[full]}
  snapshot={() => [{ path: full, value: watts }]}
/>
{#if watts}<p class="note">{say(whole, 'Wh')} a day, {num(whole / 24)} W on the average.</p>{/if}
