<script lang="ts">
  import type { Snippet } from 'svelte'
  import Dialog from '../../ui/Dialog.svelte'
  import { hand } from './hand.svelte'
  import type { RunDialog } from './hand.svelte'

  /** A dialog of the station; `onshow` runs each time it opens. */
  interface Props {
    name: NonNullable<RunDialog>
    title: string
    wide?: boolean
    onshow?: () => void
    children: Snippet
    actions?: Snippet
  }
  let { name, ...rest }: Props = $props()
</script>

<Dialog
  open={hand.dialog === name}
  onclose={() => {
    if (hand.dialog === name) hand.dialog = null
  }}
  {...rest}
/>
