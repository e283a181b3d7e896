<script lang="ts">
  import type { Snippet } from 'svelte'
  import { num } from '../ui/quantity'
  import FoundPicture from './FoundPicture.svelte'
  import type { Flag } from './FoundPicture.svelte'
  import GuessDots from './GuessDots.svelte'
  import GoLine from './GoLine.svelte'
  import { MOST_SEED, practice, seedOf } from './practice.svelte'

  /** A bank somebody else built: one points at what is wrong, and says what it is. */
  let { views }: { views: Snippet } = $props()

  // Time goes on while the page is looked at and the go is not over.
  $effect(() => {
    const timer = setInterval(() => {
      if (practice.bank && !practice.over && document.visibilityState === 'visible') practice.spentS += 1
    }, 1000)
    return () => clearInterval(timer)
  })
  $effect(() => {
    const key = (e: KeyboardEvent) => {
      if ((e.target as HTMLElement).closest('input, select, textarea, dialog') || e.ctrlKey || e.metaKey || e.altKey)
        return
      if (e.key === 'Escape') practice.point(null)
      else if (/^[1-6]$/.test(e.key) && practice.part) {
        const sentence = practice.part.sentences[Number(e.key) - 1]
        if (sentence) practice.chosen = sentence.id
      } else if (e.key.startsWith('Arrow')) {
        const parts = practice.bank?.parts ?? []
        const at = parts.findIndex((p) => p.key === practice.pointed)
        const by = e.key === 'ArrowRight' || e.key === 'ArrowDown' ? 1 : -1
        const to = parts[(at + by + parts.length) % parts.length]
        if (!to) return
        e.preventDefault()
        practice.point(to.key)
      } else if (e.key === 'Enter' && practice.chosen && !(e.target as HTMLElement).closest('a, button, [role=button]'))
        void say()
    }
    window.addEventListener('keydown', key)
    return () => window.removeEventListener('keydown', key)
  })

  const narrow = () => window.matchMedia('(max-width: 939px)').matches
  async function say() {
    await practice.say()
    // There the sentences lie over the drawing: what was said is seen once they are gone.
    if (practice.chosen === null && narrow()) practice.point(null)
  }

  let stage = $state<HTMLElement>()
  let room = $state(470)
  const go = $derived(practice.go)
  const bank = $derived(practice.bank)
  const flags = $derived.by((): Flag[] => {
    const said = (go?.answers ?? [])
      .filter((a) => a.number > 0 && a.is !== 'again')
      .map((a) => ({ text: String(a.number), miss: a.is === 'miss', parts: a.parts }))
    const left = (go?.left ?? [])
      .filter((f) => !f.seen)
      .map((f, i) => ({ text: '!', miss: false, told: true, parts: f.parts, i }))
    return [...said, ...left]
  })
  const headline = $derived(
    practice.trouble
      ? 'The server does not answer'
      : !go || !bank
        ? 'A bank is being built'
        : practice.hidden && go.answers.length === 0
          ? 'Something is wrong with this bank: point at it'
          : go.headline,
  )
  let seed = $state('')
  let refused = $state(false)
  function repeat() {
    const n = seedOf(seed)
    refused = n === null
    if (n === null) return
    seed = ''
    void practice.open(n, bank!.level.number)
  }
  const told = $derived(go?.left ?? [])
  const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
</script>

<main class="practice-sheet find">
  <div class="stage">
    <div class="head">
      <h1 class="headline" data-testid="headline">{headline}</h1>
      {@render views()}
    </div>
    {#if practice.trouble}<p class="note" role="alert">
        {practice.trouble}
        <button type="button" class="link-copper" onclick={() => practice.begin()}>try again</button>
      </p>{/if}
    {#if bank && go}
      <p class="note" data-testid="words"><b>{bank.name}.</b> {go.words}</p>
      <div
        class="picture"
        data-testid="bank"
        data-bank="{bank.seed}/{bank.level.number}"
        bind:this={stage}
        bind:clientHeight={room}
      >
        <FoundPicture
          drawing={bank.drawing}
          {flags}
          pointed={practice.pointed}
          names={practice.names}
          height={Math.max(430, Math.min(660, room - 30))}
          onpoint={(k) => practice.point(k)}
        />
      </div>
      <GoLine answers={go.answers} spentS={practice.spentS} over={go.over} />
      <div class="foot">
        {#if !go.over}
          <button type="button" class="link-copper" data-testid="show-left" onclick={() => practice.showLeft()}
            >show what is left</button
          >
          <label class="tick"><input type="checkbox" bind:checked={practice.hidden} /> do not tell how many</label>
        {/if}
        <button
          type="button"
          class="link-copper"
          data-testid="another"
          disabled={practice.busy}
          onclick={() => practice.another()}>another bank</button
        >
        <label class="field"
          >level
          <select
            class="select select-xs"
            data-testid="level"
            value={bank.level.number}
            onchange={(e) => practice.open(bank.seed, Number(e.currentTarget.value))}
          >
            {#each practice.levels as l (l.number)}<option value={l.number}
                >{l.number}: {l.words}, {l.faults === 1 ? 'one fault' : `${num(l.faults)} faults`}</option
              >{/each}
          </select></label
        >
        <label class="field"
          >number
          <input
            class="input input-xs"
            data-testid="seed"
            inputmode="numeric"
            size="6"
            placeholder={String(bank.seed)}
            aria-invalid={refused ? 'true' : undefined}
            bind:value={seed}
            oninput={() => (refused = false)}
            onkeydown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            onblur={() => seed && repeat()}
          /></label
        >
        {#if refused}<span class="note" role="alert">a number from 1 to {num(MOST_SEED)}</span>{/if}
      </div>
    {:else if !practice.trouble}<p class="caption" aria-busy="true">A good bank is built, and then spoilt.</p>{/if}
  </div>
  <div class={['side', practice.part && !practice.over && 'asking']}>
    {#if practice.part && !practice.over}
      <section class="say" aria-label="Pointed at">
        <h2>Pointed at: {practice.part.name}</h2>
        <ul class="plate">
          {#each practice.lines.filter((l) => l !== practice.part?.name) as line, i (i)}<li>{line}</li>{/each}
        </ul>
        <p class="note">What is wrong here?</p>
        <ol>
          {#each practice.part.sentences as s, i (s.id)}
            <li>
              <button
                type="button"
                class={['sentence', practice.chosen === s.id && 'on']}
                aria-pressed={practice.chosen === s.id}
                data-sentence={s.id}
                onclick={() => (practice.chosen = s.id)}><span class="fig">{i + 1}</span> {s.words}</button
              >
            </li>
          {/each}
        </ol>
        <p class="acts">
          <button
            type="button"
            class="btn btn-sm btn-primary"
            data-testid="say-so"
            disabled={!practice.chosen || practice.busy}
            onclick={say}>Say so</button
          >
          <span class="caption wide">or press 1 to {practice.part.sentences.length}, then Enter; Esc lets go</span>
          <button type="button" class="link-copper narrow" onclick={() => practice.point(null)}>let go</button>
        </p>
      </section>
    {:else if go && !go.over}
      <p class="note">Press a part of the drawing, or go from part to part with the arrow keys.</p>
    {/if}
    {#if go && go.over}
      <section data-testid="told" aria-label="What was wrong">
        <h2>What was wrong</h2>
        <ul class="told">
          {#each told as f, i (i)}
            <li>
              <span class="mark" aria-hidden="true">{f.seen ? '✓' : '!'}</span>
              <div>
                <b>{f.title}</b>
                <p>{f.why}</p>
                {#if f.pointer}<button type="button" class="link-copper" onclick={() => practice.show(f.pointer)}
                    >its working</button
                  >{/if}
                <button type="button" class="link-copper" onclick={() => practice.point(f.parts[0] ?? null)}
                  >where</button
                >
              </div>
            </li>
          {/each}
        </ul>
      </section>
    {/if}
    {#if go && go.answers.length > 0}
      <section aria-label="Said so far">
        <h2>Said so far</h2>
        <ul class="said" data-testid="said">
          {#each go.answers as a, i (i)}
            <li class={[a.is === 'miss' && 'miss']}>
              <span class={['no', 'fig', a.is === 'miss' && 'struck', a.number === 0 && 'none']}
                >{a.number > 0 ? a.number : '·'}</span
              >
              <span class="w">{a.words}{a.is === 'miss' ? ': it is not' : a.is === 'again' ? ', again' : ''}</span>
              <span class="fig at">{clock(a.answer.atS)}</span>
            </li>
          {/each}
        </ul>
        {#if practice.last}<p class="shown" data-testid="shown">
            <b>{practice.last.lead}:</b>
            {practice.last.shown.words}
          </p>{/if}
      </section>
    {/if}
    {#if practice.results && (practice.results.words || practice.results.trend.ratios.length > 0)}
      <section class="results" data-testid="results">
        {#if practice.results.trend.ratios.length > 0}
          <h2>Guess first <span class="caption">the last {practice.results.trend.ratios.length} by head</span></h2>
          <GuessDots trend={practice.results.trend} />
        {/if}
        <p class="caption">{practice.results.words}</p>
        <a class="link-copper" href="/api/practice/results.csv" download>all of it as CSV</a>
      </section>
    {/if}
  </div>
</main>

<style>
  .stage {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  .head {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 0 18px;
  }
  .head h1 {
    flex: 1 1 660px;
  }
  .picture {
    flex: 1;
    min-height: 300px;
    overflow: auto;
  }
  .foot {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 16px;
  }
  .field,
  .tick {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: 12px;
  }
  .field select {
    max-width: 280px;
  }
  .field input {
    width: 72px;
  }
  h2 {
    font-weight: 650;
    font-size: 13px;
    margin-bottom: 3px;
  }
  section + section {
    border-top: 1px solid var(--hair);
    margin-top: 10px;
    padding-top: 8px;
  }
  .plate {
    font-size: 12px;
    color: var(--ink-2);
  }
  .say ol {
    list-style: none;
    display: grid;
    gap: 5px;
    margin-top: 4px;
  }
  .sentence {
    display: flex;
    gap: 8px;
    width: 100%;
    text-align: left;
    padding: 5px 8px;
    border: 1px solid var(--ink);
    min-height: 28px;
    line-height: 1.25;
    cursor: pointer;
  }
  .sentence.on {
    background: var(--tint);
    font-weight: 650;
  }
  .acts {
    display: flex;
    align-items: center;
    gap: 10px;
    margin-top: 8px;
  }
  .narrow {
    display: none;
  }
  .said li {
    display: grid;
    grid-template-columns: 20px 1fr auto;
    gap: 7px;
    align-items: start;
    margin-top: 3px;
  }
  .said .miss .w {
    color: var(--ink-2);
  }
  .no {
    display: inline-grid;
    place-items: center;
    width: 19px;
    height: 19px;
    background: var(--ink);
    color: var(--sheet);
    border: 1px solid var(--ink);
    font-size: 12px;
  }
  .no.struck {
    background:
      linear-gradient(to top right, transparent 47%, var(--ink) 47%, var(--ink) 53%, transparent 53%), var(--sheet);
    color: var(--ink);
  }
  .no.none {
    background: none;
    color: var(--ink-2);
    border-color: transparent;
  }
  .at {
    font-size: 12px;
  }
  .shown {
    margin-top: 8px;
  }
  .told li {
    display: grid;
    grid-template-columns: 18px 1fr;
    gap: 6px;
    margin-top: 6px;
  }
  .told p {
    color: var(--ink-2);
    font-size: 12px;
  }
  .told button {
    font-size: 12px;
    margin-right: 10px;
  }
  @media (max-width: 939px) {
    .picture {
      max-height: 62vh;
    }
    .foot {
      gap: 8px 16px;
    }
    .foot button,
    .field,
    .tick {
      min-height: 44px;
    }
    .field select,
    .field input {
      height: 40px;
      font-size: 14px;
    }
    .asking .say {
      position: fixed;
      inset: auto 0 0;
      z-index: 15;
      max-height: 72vh;
      overflow: auto;
      background: var(--sheet);
      border-top: 2px solid var(--ink);
      padding: 10px 14px 14px;
    }
    .sentence {
      min-height: 48px;
      align-items: center;
      font-size: 14px;
    }
    .acts button {
      min-height: 48px;
    }
    .wide {
      display: none;
    }
    .narrow {
      display: inline-block;
    }
  }
</style>
