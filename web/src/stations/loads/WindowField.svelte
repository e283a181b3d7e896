<script lang="ts">
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { parse, sayVolts } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'

  /** The volts a DC device accepts: `10.5-15`, or nothing where they are not known. */
  let { load, path }: { load: Load; path: string } = $props()
  const plain = (v: number) => sayVolts(v).replace(' V', '')
  const at = $derived(`${session.base}${path}/window`)
  const text = $derived(load.window ? `${plain(load.window.minV)}–${plain(load.window.maxV)} V` : '')

  function read(typed: string) {
    if (typed.trim() === '') {
      session.edit({ path: at, value: null })
      return {}
    }
    const ends = typed.split(/[-–]|\bto\b/i).map((end) => parse(end, 'voltage', 'metric', (v) => v <= 1000))
    if (ends.length !== 2 || !ends.every((end) => 'value' in end))
      return { reason: 'give the least and the greatest volts, such as 10.5-15' }
    const [minV, maxV] = ends.map((end) => end.value)
    if (maxV < minV) return { reason: 'the greatest must not be below the least' }
    if (minV < 0.1 || maxV > 1000) return { reason: 'volts from 0.1 to 1,000' }
    session.edit({ path: at, value: { minV, maxV } })
    return {}
  }
</script>

<TypedField
  label="accepts"
  {text}
  {read}
  path="{path}/window"
  placeholder="not known"
  width="92px"
  faultsAt={[at, `${at}/maxV`]}
  snapshot={() => [{ path: at, value: load.window }]}
/>
