<script lang="ts">
  import type { Load } from '../../api/client'
  import type { DayAxis } from '../../ui/dayAxis'
  import DayBars from '../../ui/DayBars.svelte'
  import { lengthOf } from '../../ui/dayWindows'

  /** When a load runs. */
  interface Props {
    load: Load
    index: number
    axis: DayAxis
    /** It rests in the season shown. */
    resting?: boolean
    height?: number
  }
  let { load, index, axis, resting = false, height = 22 }: Props = $props()
  const at = (field: string) => `~/demand/loads/${index}/${field}`
  const put = (windows: number[][] | null, hours: number | null) => [
    { path: at('windows'), value: windows },
    { path: at('hours'), value: hours },
  ]
</script>

<DayBars
  name={load.name || 'New load'}
  id={index}
  windows={load.windows ?? []}
  hours={load.windows ? null : load.hours}
  fill={load.kind === 'ac' ? 'dense' : 'hatched'}
  {axis}
  {resting}
  {height}
  changes={(windows) => put(windows, null)}
  emptied={(last) => put(null, Number(lengthOf(last).toFixed(6)))}
  snapshot={() => put(load.windows, load.hours)}
/>
