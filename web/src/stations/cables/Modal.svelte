<script lang="ts">
  import type { Snippet } from 'svelte'
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
  let { name, title, wide = false, onshow, children, actions }: Props = $props()
  const id = $props.id()
  let dialog: HTMLDialogElement
  const open = $derived(hand.dialog === name)
  $effect(() => {
    if (!open) {
      dialog.close()
      return
    }
    dialog.showModal()
    onshow?.()
  })
</script>

<dialog
  bind:this={dialog}
  class="modal"
  onclose={() => {
    if (hand.dialog === name) hand.dialog = null
  }}
  aria-labelledby={id}
>
  <div class={['modal-box border border-(--ink)', wide ? 'max-w-5xl' : 'max-w-2xl']}>
    <h2 {id} class="headline">{title}</h2>
    {#if open}{@render children()}{/if}
    <div class="modal-action flex-wrap">
      {#if actions}{@render actions()}{/if}
      <button type="button" class="btn btn-primary btn-sm" onclick={() => (hand.dialog = null)}>Close</button>
    </div>
  </div>
</dialog>
