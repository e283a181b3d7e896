<script lang="ts">
  import type { Snippet } from 'svelte'
  import { Refused } from '../api/client'
  import { fieldText } from './quantity'
  import type { Kind } from './quantity'
  import { readAll } from './itemForm'
  import type { ItemField, Trouble, Values } from './itemForm'

  /** The few things that must be known first, the rest folded in groups; what is wrong stands beside its field, all of it at once. */
  interface Props {
    fields: ItemField[]
    texts: Record<string, string>
    /** Further fields among the first ones, and what was understood. */
    first?: Snippet
    /** Keeps the item; what it throws is said at its field. */
    onkeep: (values: Values) => Promise<void>
    onleave: () => void
    leave: string
    /** Wrong by more than one field; null: it is right. */
    check?: (values: Values) => Record<string, Trouble>
    /** Said beside a field while it is typed. */
    understood?: Record<string, string>
  }
  let {
    fields,
    texts = $bindable(),
    first,
    onkeep,
    onleave,
    leave,
    check = () => ({}),
    understood = {},
  }: Props = $props()

  let wrong = $state.raw<Record<string, Trouble>>({})
  let told = $state('')
  let busy = $state(false)
  const groups = $derived([...new Set(fields.map((f) => f.group).filter((g) => g !== undefined))])
  let opened = $state<Record<string, boolean>>({})
  const uid = $props.id()

  async function keep() {
    const read = readAll(fields, texts)
    wrong = { ...(Object.keys(read.wrong).length === 0 ? check(read.values) : {}), ...read.wrong }
    told = ''
    if (Object.keys(wrong).length > 0) {
      for (const f of fields) if (f.group && wrong[f.key]) opened[f.group] = true
      const count = Object.keys(wrong).length
      told = `${count} ${count === 1 ? 'field wants' : 'fields want'} another look`
      document.getElementById(`${uid}-${fields.find((f) => wrong[f.key])?.key}`)?.focus()
      return
    }
    busy = true
    try {
      await onkeep(read.values)
    } catch (e) {
      if (!(e instanceof Refused) || e.faults.length === 0) told = (e as Error).message
      else {
        const rest: string[] = []
        const at: Record<string, Trouble> = {}
        for (const fault of e.faults) {
          const field = fields.find((f) => f.pointer === fault.pointer)
          if (field) at[field.key] = { reason: fault.reason }
          else rest.push(`${fault.pointer.slice(1)} ${fault.reason}`)
        }
        wrong = at
        for (const f of fields) if (f.group && at[f.key]) opened[f.group] = true
        told = rest.join('; ')
      }
    } finally {
      busy = false
    }
  }

  function take(field: ItemField, value: number) {
    texts[field.key] = fieldText(value, field.kind as Kind, 'metric')
    const { [field.key]: _, ...others } = wrong
    wrong = others
  }
</script>

{#snippet one(field: ItemField)}
  {@const trouble = wrong[field.key]}
  <div class="field">
    <label for="{uid}-{field.key}">{field.label}</label>
    <input
      id="{uid}-{field.key}"
      class="input input-xs w-full"
      autocomplete="off"
      data-own={field.key}
      aria-invalid={trouble ? 'true' : undefined}
      aria-describedby="{uid}-{field.key}-says"
      bind:value={texts[field.key]}
    />
    <div id="{uid}-{field.key}-says" class={['says', trouble && 'bad']}>
      {#if trouble}<span role="alert">{trouble.reason}</span>{#each trouble.choices ?? [] as value (value)}<button
            type="button"
            class="pick"
            onclick={() => take(field, value)}>{fieldText(value, field.kind as Kind, 'metric')}</button
          >{/each}
      {:else if understood[field.key] && texts[field.key]?.trim()}{understood[field.key]}
      {:else if field.left && !texts[field.key]?.trim()}left: {field.left}
      {:else if field.example && !texts[field.key]?.trim()}such as {field.example}{/if}
    </div>
  </div>
{/snippet}

<form
  onsubmit={(e) => {
    e.preventDefault()
    void keep()
  }}
>
  <div class="fields">
    {#each fields.filter((f) => f.group === undefined) as field (field.key)}{@render one(field)}{/each}
    {@render first?.()}
  </div>
  {#each groups as group (group)}
    {@const inside = fields.filter((f) => f.group === group)}
    <details bind:open={opened[group]}>
      <summary
        >{group}
        <span class="caption">{inside.filter((f) => texts[f.key]?.trim()).length} of {inside.length} given</span
        ></summary
      >
      <div class="fields">
        {#each inside as field (field.key)}{@render one(field)}{/each}
      </div>
    </details>
  {/each}
  <p class="note mt-2" role="alert">{told}</p>
  <div class="modal-action">
    <button type="button" class="btn btn-outline btn-sm" onclick={onleave}>{leave}</button>
    <button type="submit" class="btn btn-primary btn-sm" disabled={busy}>Keep and use it</button>
  </div>
</form>

<style>
  .fields {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
    gap: 6px 12px;
    margin-top: 8px;
  }
  .field,
  .fields :global(.field) {
    display: flex;
    flex-direction: column;
    gap: 1px;
  }
  label {
    font-size: 12px;
    color: var(--ink-2);
  }
  .says {
    min-height: 16px;
    font-size: 11.5px;
    color: var(--ink-2);
  }
  .bad {
    background: var(--ink);
    color: var(--sheet);
    padding: 0 5px;
    justify-self: start;
  }
  .pick {
    margin-left: 8px;
    min-height: 24px;
    text-decoration: underline;
    font-weight: 650;
    cursor: pointer;
  }
  details {
    border-top: 1px solid var(--hair);
    padding: 4px 0;
    margin-top: 4px;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 26px;
  }
  @media (max-width: 939px) {
    summary,
    .pick,
    .field :global(.input) {
      min-height: 44px;
    }
  }
</style>
