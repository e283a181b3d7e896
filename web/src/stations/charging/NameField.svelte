<script lang="ts">
  import { session } from '../../app/session.svelte'
  import TypedField from '../../ui/TypedField.svelte'

  /** A name of the document, within the bank. */
  let { label, path, value, width = '120px' }: { label: string; path: string; value: string; width?: string } = $props()
  const full = $derived(session.base + path)
</script>

<TypedField
  {label}
  text={value}
  words
  read={(typed) => {
    session.edit({ path: full, value: typed.slice(0, 80) })
    return {}
  }}
  {width}
  {path}
  faultsAt={[full]}
  snapshot={() => [{ path: full, value }]}
/>
