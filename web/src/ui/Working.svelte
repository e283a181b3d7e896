<script lang="ts">
  import { session } from '../app/session.svelte'
  import type { Term } from '../api/client'
  import { show } from './quantity'
  import HouseRule from './HouseRule.svelte'

  /** The written-out equation of the selected figure, each number underlined by where it comes from. */
  const equation = $derived(session.equation)
  const origins: Record<Term['origin'], string> = {
    you: 'you',
    'data-sheet': 'data sheet',
    'house-rule': 'house rule',
    table: 'table, typical',
    assumed: 'assumed',
    'worked-out': 'worked out, open it',
  }

  type Piece = { term: Term } | { text: string }
  const pieces = $derived.by((): Piece[] => {
    if (!equation?.form) return []
    return equation.form
      .split(/(\{[^}]+\})/)
      .filter((p) => p !== '')
      .map((p) => {
        const term = p.startsWith('{') ? equation.terms.find((t) => t.key === p.slice(1, -1)) : undefined
        return term ? { term } : { text: p.trim() }
      })
  })
  const rule = $derived.by(() => {
    const id = equation?.houseRule ?? equation?.terms.find((t) => t.origin === 'house-rule')?.ref
    return session.reference!.houseRules.find((r) => r.id === id) ?? null
  })

  function written(term: Term): string {
    if (term.text) return term.text
    if (term.value === null) return '–'
    const s = show(term.value, term.unit, session.units, session.design?.display.currency ?? '')
    return s.unit ? `${s.text} ${s.unit}` : s.text
  }
</script>

{#snippet number(term: Term)}
  {#if term.origin === 'worked-out' && term.ref}
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

<section class="working" aria-label="Working">
  {#if equation}
    {@const head = show(equation.value, equation.unit, session.units, session.design?.display.currency ?? '')}
    <div class="answer">
      <span class="caption">Working</span>
      <span class="fig text-[30px] leading-none" data-testid="working-value"
        >{head.text}<span class="text-[18px] ml-1">{head.unit}</span></span
      >
      <span class="caption">{equation.label}</span>
      {#if session.trail.length > 0}<button
          type="button"
          class="link-copper text-[12px] text-left min-h-6"
          onclick={() => session.back()}>‹ back</button
        >{/if}
    </div>
    <div class="equation" data-testid="working">
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
      <p class="origins caption">
        <span class="val from-you">you</span><span class="val from-data-sheet">data sheet</span><span
          class="val from-house-rule">house rule</span
        ><span class="val from-table">table, typical</span><span class="val from-assumed">assumed</span><span
          class="val from-worked-out">worked out, open it</span
        >
        <a class="link-copper" href="/method.html#m{equation.method.replace('.', '-')}" target="_blank" rel="noreferrer"
          >method {equation.method}</a
        >
      </p>
    </div>
    <div class="rule">
      {#if rule}<HouseRule {rule} />{/if}
    </div>
  {:else}
    <p class="caption">
      Every figure in the <span class="fig text-[13px]">narrow type</span> opens its working here: the formula, the numbers
      put in, and where each comes from.
    </p>
  {/if}
</section>

<style>
  .working {
    display: grid;
    grid-template-columns: 146px minmax(0, 1fr) 272px;
    gap: 16px;
    padding: 8px 16px;
    height: 118px;
    overflow: auto;
    align-items: start;
  }
  .working > p {
    grid-column: 1 / -1;
  }
  .answer {
    display: flex;
    flex-direction: column;
    gap: 3px;
  }
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
    border-bottom: 2px solid transparent;
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
  .from-you {
    border-bottom: 4px double var(--ink);
  }
  .from-data-sheet {
    border-bottom: 1.5px solid var(--ink);
  }
  .from-house-rule {
    border-bottom: 1.5px dashed var(--copper);
    color: var(--copper-text);
  }
  .from-table {
    border-bottom: 3px solid var(--hair);
  }
  .from-assumed {
    border-bottom: 1.5px dashed var(--ink-3);
  }
  .from-worked-out {
    border-bottom: 1.5px dotted var(--ink);
  }
  .origins {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    margin-top: 6px;
  }
  .origins .val {
    font-size: 11.5px;
    line-height: 14px;
  }
  @media (max-width: 939px) {
    .working {
      grid-template-columns: 1fr;
      padding-bottom: 16px;
      height: auto;
    }
  }
</style>
