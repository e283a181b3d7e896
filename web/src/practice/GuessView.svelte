<script lang="ts">
  import type { Snippet } from 'svelte'
  import { api } from '../api/client'
  import type { GuessAnswer, GuessQuestion, GuessTrend, Schemas } from '../api/client'
  import { guessing } from '../app/guessing.svelte'
  import { session } from '../app/session.svelte'
  import { readNumber } from '../ui/written'
  import GuessDots from './GuessDots.svelte'
  import GuessLine from './GuessLine.svelte'
  import GuessRows from './GuessRows.svelte'

  /** The next figure by head, before it is shown; what would have helped, and where that fails. */
  let { views }: { views: Snippet } = $props()

  /** Null: not asked yet. */
  let questions = $state.raw<readonly GuessQuestion[] | null>(null)
  let at = $state(0)
  let typed = $state('')
  let refused = $state<string | null>(null)
  let answer = $state.raw<GuessAnswer | null>(null)
  let trend = $state.raw<GuessTrend | null>(null)
  let rows = $state.raw<readonly Schemas['GuessRow'][]>([])
  let trouble = $state<string | null>(null)
  let busy = $state(false)
  let field = $state<HTMLInputElement>()

  $effect(() => {
    const design = session.worked
    const bank = session.bankIndex
    void session.evaluation
    if (!design) return
    const timer = setTimeout(async () => {
      try {
        questions = await api.guesses(design, bank)
        if (!trend) {
          const results = await api.practiceResults()
          trend = results.trend
          rows = results.rows
        }
        trouble = null
      } catch (e) {
        trouble = e instanceof Error ? e.message : 'The server does not answer.'
      }
    }, 60)
    return () => clearTimeout(timer)
  })
  const question = $derived(questions?.[at % Math.max(1, questions.length)] ?? null)

  async function say() {
    if (!question || busy) return
    const read = readNumber(typed)
    const said = read === null || read.other !== null ? null : read.value
    if (said === null || said <= 0) {
      refused = read?.other
        ? 'That can be read in two ways: write it without the comma or point.'
        : `A figure above 0, in ${question.unit}.`
      return
    }
    busy = true
    try {
      answer = await api.sayGuess(session.worked!, session.bankIndex, question.id, said)
      trend = answer?.trend ?? trend
      rows = answer?.rows ?? rows
      trouble = null
      if (answer) {
        guessing.uncover(answer.judged.question.pointer)
        session.select(answer.judged.question.pointer)
      }
    } catch (e) {
      trouble = e instanceof Error ? e.message : 'The server does not answer.'
    } finally {
      busy = false
    }
  }
  function next() {
    session.release()
    at += 1
    typed = ''
    refused = null
    answer = null
    field?.focus()
  }
</script>

<main class="practice-sheet">
  <div class="ask">
    <h1 class="headline" data-testid="headline">
      {trouble
        ? 'The server does not answer'
        : answer
          ? answer.judged.words
          : (question?.ask ??
            (questions ? 'Nothing to guess yet: the design has no bank that gives current' : 'A figure is chosen'))}
    </h1>
    {@render views()}
    {#if trouble}<p class="note" role="alert">{trouble}</p>{/if}
    {#if question}
      <p class="note">
        Of <b>{session.evaluation!.name}</b>{session.evaluation!.banks.length > 1
          ? `, ${session.evaluation!.banks[session.bankIndex].name}`
          : ''}. By head, before you look.
      </p>
      {#if answer}
        <p class="question">{question.ask}</p>
        <GuessLine judged={answer.judged} {typed} />
        <dl class="judged" data-testid="judged">
          <dt>what would have helped</dt>
          <dd data-testid="thumb">{answer.judged.thumb}</dd>
          <dt>where that fails</dt>
          <dd>{answer.judged.fails}</dd>
        </dl>
        <p>
          <button type="button" class="btn btn-sm btn-primary" data-testid="next-guess" onclick={next}
            >The next one</button
          >
        </p>
      {:else}
        <label class="said">
          <span class="caption">you say</span>
          <input
            bind:this={field}
            class="fig big"
            data-testid="guess"
            inputmode="decimal"
            autocomplete="off"
            aria-label="Your guess in {question.unit}"
            aria-invalid={refused ? 'true' : undefined}
            bind:value={typed}
            oninput={() => (refused = null)}
            onkeydown={(e) => e.key === 'Enter' && say()}
          />
          <span class="fig unit">{question.unit}</span>
        </label>
        {#if refused}<p class="note" role="alert">{refused}</p>{/if}
        <p class="acts">
          <button type="button" class="btn btn-sm btn-primary" disabled={busy} onclick={say}>Say it</button>
          <button type="button" class="link-copper" onclick={next}>another figure</button>
        </p>
      {/if}
    {/if}
    <section class="rows" aria-label="By figure">
      <h2>By figure <span class="caption">each guess as said ÷ right, the newest at the right</span></h2>
      <GuessRows {rows} asked={question?.id ?? null} />
    </section>
  </div>
  <div class="side">
    <h2>By head <span class="caption">said ÷ right</span></h2>
    {#if trend && trend.ratios.length > 0}<GuessDots {trend} />{:else}<p class="caption">
        Each guess becomes a dot here, the newest at the right.
      </p>{/if}
    <p class="switch">
      <label
        ><input
          type="checkbox"
          checked={guessing.on}
          onchange={(e) => guessing.turn(e.currentTarget.checked)}
          data-testid="guess-anywhere"
        />
        Cover these figures everywhere in my designs until I have guessed them</label
      >
    </p>
    <p class="caption">
      Kept on this machine alone. <a class="link-copper" href="/api/practice/results.csv" download>as CSV</a>
    </p>
  </div>
</main>

<style>
  .said {
    display: flex;
    align-items: baseline;
    gap: 10px;
    margin-top: 22px;
  }
  .said input {
    width: 220px;
    font-size: 46px;
    border: 0;
    border-bottom: 4px double var(--ink);
    background: none;
    text-align: right;
  }
  .unit {
    font-size: 24px;
  }
  .acts,
  .switch {
    display: flex;
    gap: 14px;
    align-items: center;
    margin-top: 18px;
  }
  .switch {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
    margin-bottom: 12px;
    align-items: flex-start;
  }
  .question {
    margin-top: 8px;
  }
  .judged {
    display: grid;
    grid-template-columns: 150px minmax(0, 60ch);
    gap: 8px 14px;
    margin: 14px 0;
  }
  .judged dt {
    color: var(--ink-2);
  }
  h2 {
    font-weight: 650;
  }
  .rows {
    margin-top: 22px;
    border-top: 1px solid var(--hair);
    padding-top: 8px;
  }
  @media (max-width: 939px) {
    .judged {
      grid-template-columns: 1fr;
      gap: 2px;
    }
    .judged dd {
      margin-bottom: 8px;
    }
    .acts button,
    .switch label {
      min-height: 44px;
    }
  }
</style>
