<script lang="ts">
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { parseTimes, say, timesText } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'

  /** When or how long it runs: times of day, or hours a day. */
  let { load, path }: { load: Load; path: string } = $props()
  const at = (field: string) => `${session.base}${path}/${field}`

  function read(typed: string) {
    const times = parseTimes(typed)
    if ('reason' in times) {
      // 90 a day is hardly hours.
      const minutes = /^\s*(\d+)\s*h?\s*$/.exec(typed)
      const hours = minutes ? Number(minutes[1]) / 60 : 0
      if (!(hours > 0 && hours <= 24)) return times
      const take = () =>
        session.edit([
          { path: at('windows'), value: null },
          { path: at('hours'), value: Number(hours.toFixed(6)) },
        ])
      return { ...times, offers: [{ text: `${minutes![1]} min`, take }] }
    }
    const windows = 'windows' in times ? times.windows : null
    const hours = 'hours' in times ? times.hours : null
    session.edit([
      { path: at('windows'), value: windows },
      { path: at('hours'), value: hours },
    ])
    return hours !== null ? { understood: `${say(hours, 'h')} a day` } : {}
  }
</script>

<TypedField
  label="when, or hours a day"
  text={timesText(load)}
  {read}
  path="{path}/times"
  width="196px"
  faultsAt={[at('windows'), at('hours')]}
  snapshot={() => [
    { path: at('windows'), value: load.windows },
    { path: at('hours'), value: load.hours },
  ]}
/>
