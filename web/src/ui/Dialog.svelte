<script lang="ts">
  import type { Snippet } from 'svelte'

  /** A dialog over the bench; `onshow` runs each time it opens. */
  interface Props {
    open: boolean
    title: string
    wide?: boolean
    onshow?: () => void
    onclose: () => void
    children: Snippet
    actions?: Snippet
  }
  let { open, title, wide = false, onshow, onclose, children, actions }: Props = $props()
  const id = $props.id()
  let dialog: HTMLDialogElement
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
    if (open) onclose()
  }}
  aria-labelledby={id}
>
  <div class={['modal-box border border-(--ink)', wide ? 'max-w-5xl' : 'max-w-2xl']}>
    <h2 {id} class="headline">{title}</h2>
    {#if open}{@render children()}{/if}
    <div class="modal-action flex-wrap">
      {#if actions}{@render actions()}{/if}
      <button type="button" class="btn btn-primary btn-sm" onclick={onclose}>Close</button>
    </div>
  </div>
</dialog>
