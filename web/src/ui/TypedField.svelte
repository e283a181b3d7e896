<script lang="ts">
  import type { Change } from '../api/client'
  import { session } from '../app/session.svelte'

  /** A field that is typed in: it says what it understood or why it refuses, and gives the old value back on Esc. */
  interface Offer {
    text: string
    take: () => void
  }
  interface Props {
    label: string
    /** How the value reads while nobody types. */
    text: string
    /** Reads what was typed and, where it can be taken, changes the document. Offers are other readings, to be taken with a press. */
    read: (typed: string) => { reason?: string; understood?: string; offers?: Offer[] }
    /** Changes that bring back what stands now. */
    snapshot: () => Change[]
    /** The value nudged by a step, as text; null where there is none. */
    nudge?: (steps: number) => string | null
    placeholder?: string
    width?: string
    hideLabel?: boolean
    path?: string
    /** Places of the document whose refusal belongs to this field. */
    faultsAt?: string[]
    words?: boolean
  }
  let {
    label,
    text,
    read,
    snapshot,
    nudge,
    placeholder = '',
    width = '92px',
    hideLabel = false,
    path,
    faultsAt = [],
    words = false,
  }: Props = $props()

  const id = $props.id()
  let typed = $state<string | null>(null)
  let reason = $state<string | null>(null)
  let understood = $state<string | null>(null)
  let offers = $state.raw<Offer[]>([])
  let before: Change[] = []

  let touched = false

  // What the server refuses stands beside the field like what the field itself refuses.
  const fault = $derived(typed === null ? null : (faultsAt.map((p) => session.reasonAt(p)).find((r) => r) ?? null))
  $effect(() => {
    if (fault) refuse(fault)
  })

  function accept(next: string) {
    typed = next
    const answer = read(next)
    understood = answer.understood ?? null
    offers = answer.offers ?? []
    if (answer.reason) refuse(answer.reason)
    else {
      reason = null
      touched = true
    }
  }

  /** A text on its way to a refused one may have been a good value by chance: what stood before typing comes back. */
  function refuse(why: string) {
    reason = why
    understood = null
    if (touched) session.edit(before)
    touched = false
  }

  function leave() {
    if (typed === null) return
    typed = null
    // Another reading stays on offer until it is taken or something else is typed.
    if (offers.length === 0) understood = reason = null
    void session.commit()
  }

  function take(offer: Offer) {
    offer.take()
    offers = []
    understood = reason = null
    void session.commit()
  }

  function key(e: KeyboardEvent) {
    const input = e.currentTarget as HTMLInputElement
    if (e.key === 'Enter') {
      // A refused text stays for mending; the reason stands beside it.
      if (reason) return
      leave()
      before = snapshot()
      input.select()
    } else if (e.key === 'Escape' && typed !== null) {
      e.stopPropagation()
      session.edit(before)
      offers = []
      leave()
    } else if ((e.key === 'ArrowUp' || e.key === 'ArrowDown') && nudge) {
      const next = nudge((e.key === 'ArrowUp' ? 1 : -1) * (e.shiftKey ? 10 : 1))
      if (next === null) return
      e.preventDefault()
      // Shown before anything follows from it: a focused field that changes among other changes lays the whole page out twice.
      input.value = next
      accept(next)
    }
  }
</script>

<div class="field">
  <label for={id} class={hideLabel ? 'sr-only' : 'caption'}>{label}</label>
  <input
    {id}
    class={['input input-xs', !words && 'fig']}
    style:width
    value={typed ?? text}
    {placeholder}
    autocomplete="off"
    spellcheck="false"
    aria-invalid={reason ? 'true' : undefined}
    aria-describedby={reason || understood ? `${id}-says` : undefined}
    data-path={path}
    data-typed={typed === null ? undefined : ''}
    onfocus={(e) => {
      before = snapshot()
      touched = false
      e.currentTarget.select()
    }}
    oninput={(e) => accept(e.currentTarget.value)}
    onblur={leave}
    onkeydown={key}
  />
  {#if reason || understood}
    <div class={['says', reason && 'refused']}>
      <p id="{id}-says" role={reason ? 'alert' : undefined}>{reason ?? `= ${understood}`}</p>
      {#each offers as offer (offer.text)}
        <button type="button" class="offer" onclick={() => take(offer)}>{offer.text} instead</button>
      {/each}
      {#if offers.length > 0 && typed === null}
        <button type="button" class="offer" onclick={() => ((offers = []), (understood = reason = null))}
          >as it stands</button
        >
      {/if}
    </div>
  {/if}
</div>

<style>
  .field {
    position: relative;
    display: inline-flex;
    flex-direction: column;
    gap: 1px;
  }
  .input {
    height: 26px;
    font-size: 14px;
  }
  .input:not(:global(.fig)) {
    font-size: 13px;
  }
  .input::placeholder {
    color: var(--ink-3);
    opacity: 1;
    font-weight: 450;
  }
  .input[aria-invalid='true'] {
    border-color: var(--ink);
    border-width: 2px;
  }
  .says {
    position: absolute;
    top: calc(100% + 2px);
    left: 0;
    z-index: 5;
    white-space: nowrap;
    background: var(--sheet);
    border: 1px solid var(--ink-3);
    padding: 1px 6px;
    font-size: 12px;
  }
  .offer {
    min-height: 24px;
    margin-right: 8px;
    text-decoration: underline;
    text-underline-offset: 2px;
    font-weight: 600;
    cursor: pointer;
  }
  .refused {
    background: var(--ink);
    color: var(--sheet);
    border-color: var(--ink);
  }
  @media (max-width: 939px) {
    .offer {
      min-height: 44px;
    }
    .input {
      height: 44px;
      font-size: 16px;
    }
  }
</style>
