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
    if ('reason' in times) return times
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
