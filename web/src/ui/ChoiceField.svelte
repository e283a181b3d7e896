<script lang="ts">
  import { session } from '../app/session.svelte'

  /** A choice out of a list. The first entry, where there is one for it, is "as advised". */
  interface Props {
    label: string
    value: string | null
    options: { value: string; text: string }[]
    advised?: string | null
    /** What stands where nothing is chosen, and is no advice. */
    none?: string
    width?: string
    hideLabel?: boolean
    path?: string
    /** Each choice is an act of its own: nothing stays chosen. */
    acts?: boolean
    onpick: (value: string | null) => void
  }
  let {
    label,
    value,
    options,
    advised = undefined,
    none,
    width = '150px',
    hideLabel = false,
    path,
    acts = false,
    onpick,
  }: Props = $props()
  const id = $props.id()
  const fault = $derived(path ? session.reasonAt(session.base + path) : null)
</script>

<div class="inline-flex flex-col gap-px">
  <label for={id} class={hideLabel ? 'sr-only' : 'caption'}>{label}</label>
  <select
    {id}
    class="select select-xs h-[26px]"
    style:width
    value={value ?? ''}
    data-path={path}
    aria-invalid={fault ? 'true' : undefined}
    onchange={(e) => {
      onpick(e.currentTarget.value === '' ? null : e.currentTarget.value)
      if (acts) e.currentTarget.value = ''
    }}
  >
    {#if none !== undefined}<option value="">{none}</option>{/if}
    {#if advised !== undefined}
      <option value="">{advised ? `${advised}, advised` : 'as advised'}</option>
    {/if}
    {#each options as option (option.value)}
      <option value={option.value}>{option.text}</option>
    {/each}
  </select>
  {#if fault}<p class="text-xs">{fault}</p>{/if}
</div>
