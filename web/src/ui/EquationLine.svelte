<script lang="ts">
  import type { Equation, Term } from '../api/client'
  import { session } from '../app/session.svelte'

  /** A written-out equation, each number underlined by where it comes from. */
  interface Props {
    equation: Equation
    /** Whether numbers that were worked out lead deeper. */
    deeper?: boolean
  }
  let { equation, deeper = true }: Props = $props()
  const origins: Record<Term['origin'], string> = {
    you: 'you',
    'data-sheet': 'data sheet',
    'house-rule': 'house rule',
    table: 'table, typical',
    assumed: 'assumed',
    'worked-out': 'worked out',
  }

  type Piece = { term: Term } | { text: string }
  const pieces = $derived.by((): Piece[] => {
    if (!equation.form) return []
    return equation.form
      .split(/(\{[^}]+\})/)
      .filter((p) => p !== '')
      .map((p) => {
        const term = p.startsWith('{') ? equation.terms.find((t) => t.key === p.slice(1, -1)) : undefined
        return term ? { term } : { text: p.trim() }
      })
  })
  const head = $derived(session.show(equation.value, equation.unit))

  function written(term: Term): string {
    if (term.text) return term.text
    if (term.value === null) return '–'
    const s = session.show(term.value, term.unit)
    return s.unit ? `${s.text} ${s.unit}` : s.text
  }
</script>

{#snippet number(term: Term)}
  {#if deeper && term.origin === 'worked-out' && term.ref}
    <button type="button" class="term" onclick={() => session.select(term.ref!, true)}>
      <span class="fig val from-worked-out">{written(term)}</span>
      <span class="lab">{term.label}</span>
      <span class="sr-only">worked out, go deeper</span>
    </button>
  {:else}
    <span class="term">
      <span class="fig val from-{term.origin}">{written(term)}</span>
      <span class="lab">{term.label}{term.origin === 'table' && term.ref ? ` (${term.ref})` : ''}</span>
      <span class="sr-only">{origins[term.origin]}</span>
    </span>
  {/if}
{/snippet}

<div class="line">
  {#if equation.form}
    <span class="fig val">{head.text} {head.unit}</span><span class="op">=</span>
    {#each pieces as piece, i (i)}
      {#if 'term' in piece}{@render number(piece.term)}{:else}<span class="op">{piece.text}</span>{/if}
    {/each}
  {:else}
    {#each equation.terms as term (term.key)}{@render number(term)}{/each}
  {/if}
</div>
{#if equation.sentence}<p class="note">{equation.sentence}</p>{/if}

<style>
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 8px;
    align-items: flex-start;
  }
  .term {
    display: inline-flex;
    flex-direction: column;
    align-items: center;
    max-width: 150px;
  }
  button.term {
    cursor: pointer;
  }
  .val {
    font-size: 17px;
    line-height: 22px;
    white-space: nowrap;
    padding-bottom: 1px;
  }
  .lab {
    font-size: 11.5px;
    color: var(--ink-3);
    line-height: 1.2;
    text-align: center;
  }
  .op {
    font-size: 16px;
    line-height: 22px;
    color: var(--ink-2);
  }
</style>
