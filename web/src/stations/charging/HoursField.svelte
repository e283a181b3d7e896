<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { parseTimes, timesText } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'

  /** The hours of a source as one types them: 18:00-22:30, or nothing. */
  interface Props {
    label: string
    /** Where the document has them, within the bank. */
    path: string
    windows: number[][] | null
    width?: string
    hideLabel?: boolean
  }
  let { label, path, windows, width = '100px', hideLabel = false }: Props = $props()
  const full = $derived(session.base + path)

  function read(typed: string) {
    if (typed.trim() === '') {
      session.edit({ path: full, value: null })
      return {}
    }
    const times = parseTimes(typed)
    if ('reason' in times) return { reason: 'give times such as 18:00-22:30' }
    if ('hours' in times) return { reason: 'say from when to when, such as 18:00-22:30' }
    session.edit({ path: full, value: times.windows })
    return {}
  }
</script>

<TypedField
  {label}
  text={windows ? timesText({ windows, hours: null }) : ''}
  {read}
  {path}
  {width}
  {hideLabel}
  placeholder="never"
  faultsAt={[full]}
  snapshot={() => [{ path: full, value: windows }]}
/>
