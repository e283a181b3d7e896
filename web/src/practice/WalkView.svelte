<script lang="ts">
  import { onMount, type Snippet } from 'svelte'
  import { api, Refused } from '../api/client'
  import type { WalkState } from '../api/client'
  import { memory } from '../app/memory.svelte'
  import { newKey } from '../app/newKey'
  import CutOut from '../bringup/CutOut.svelte'
  import { num } from '../ui/quantity'
  import { MOST_SEED, seedOf, someSeed } from './practice.svelte'

  /** Bring-up on a bank with hidden faults: the meter answers, and one goes on or stops. */
  let { views }: { views: Snippet } = $props()
  const KEPT = 'inky-badger.walk'
  const words = {
    caught: 'caught',
    passed: 'in order',
    'went-past': 'gone past',
    'false-alarm': 'false alarm',
  } as const

  interface Attempt {
    key: string
    seed: number
    faults: number
    calls: boolean[]
  }

  let walk = $state.raw<WalkState | null>(null)
  /** As it was sent last, and as it was answered last: one that was not answered leaves the one before on the screen. */
  let sent = $state.raw<Attempt>(fresh(someSeed(), 3))
  let shown = $state.raw<Attempt | null>(null)
  let typed = $state('')
  let refused = $state(false)
  let trouble = $state<string | null>(null)
  let busy = $state(false)

  function fresh(seed: number, faults: number): Attempt {
    return { key: newKey(), seed, faults, calls: [] }
  }
  async function ask(attempt: Attempt, kept = false) {
    sent = attempt
    busy = true
    try {
      walk = await api.practiceWalk(attempt)
      shown = attempt
      trouble = null
      memory.write(KEPT, JSON.stringify(attempt))
    } catch (e) {
      // What was kept by another version may be a walk that is not to be had any more.
      if (kept && e instanceof Refused && e.status === 400) {
        memory.forget(KEPT)
        await ask(fresh(someSeed(), 3))
      } else trouble = e instanceof Error ? e.message : 'The server does not answer.'
    } finally {
      busy = false
    }
  }
  /** Of the walk that is seen: a call that was not answered is made anew, not twice, and no other bank's reading is called. */
  const call = (wrong: boolean) => shown && ask({ ...shown, calls: [...shown.calls, wrong] })
  onMount(() => {
    const kept = read()
    void ask(kept ?? sent, kept !== null)
  })
  function read(): Attempt | null {
    try {
      const kept = JSON.parse(memory.read(KEPT) ?? 'null') as Attempt | null
      return kept && typeof kept.key === 'string' && Array.isArray(kept.calls) ? kept : null
    } catch {
      return null
    }
  }
  function number() {
    const n = seedOf(typed)
    refused = n === null
    if (n === null) return
    typed = ''
    void ask(fresh(n, sent.faults))
  }
  const last = $derived(walk?.told.at(-1) ?? null)
  const now = $derived(walk?.now ?? null)
</script>

<main class="practice-sheet">
  <div>
    <h1 class="headline" data-testid="headline">
      {trouble && !walk ? 'The server does not answer' : (walk?.headline ?? 'A bank is being built')}
    </h1>
    {@render views()}
    {#if trouble}<p class="note" role="alert">
        {trouble} <button type="button" class="link-copper" onclick={() => ask(sent)}>try again</button>
      </p>{/if}
    {#if walk}
      <p class="note">
        <b>{walk.bank}.</b> The meter is simulated: the bank is made up, and some of what it says is wrong. On a real bank
        nothing here stands in for the steps of Bring-up, its gates and a qualified hand.
      </p>
      {#if last}
        <div class="last" data-testid="told">
          <p>
            <b>{last.reading.title}: {last.reading.reading}</b>, {words[last.is]}. {last.expected
              ? `It should be ${last.expected}.`
              : ''}
          </p>
          <p class="note">{last.verdict}</p>
          {#if last.is === 'caught' || last.is === 'went-past'}<ul class="todo">
              {#each last.toDo as t, i (i)}<li>{t}</li>{/each}
            </ul>{/if}
        </div>
      {/if}
      {#if now}
        <section class="now" aria-label="The reading">
          <p class="caption">reading {walk.of - walk.left + 1} of {walk.of}{now.load ? ` · ${now.load}` : ''}</p>
          <h2>{now.title}</h2>
          <p>{now.do}</p>
          {#if now.tips}<div class="cut"><CutOut step={{ tips: now.tips, unit: '' }} zone={null} /></div>{/if}
          <p class="meter">
            <span class="caption">the meter says</span>
            <span class="fig" data-testid="reading">{now.reading}</span>
            <span class="note">{now.given}</span>
          </p>
          <p class="acts">
            <button
              type="button"
              class="btn btn-primary"
              data-testid="go-on"
              disabled={busy}
              onclick={() => call(false)}>In order, go on</button
            >
            <button type="button" class="btn" data-testid="stop" disabled={busy} onclick={() => call(true)}
              >Stop, it is wrong</button
            >
          </p>
        </section>
      {/if}
      <p class="foot">
        <button
          type="button"
          class="link-copper"
          data-testid="another-walk"
          disabled={busy}
          onclick={() => ask(fresh(someSeed(), sent.faults))}>another bank</button
        >
        <label
          >faults
          <select
            class="select select-xs"
            value={(shown ?? sent).faults}
            onchange={(e) => ask(fresh(sent.seed, Number(e.currentTarget.value)))}
          >
            {#each [1, 2, 3, 4, 5] as n (n)}<option value={n}>{n}</option>{/each}
          </select></label
        >
        <label
          >number
          <input
            class="input input-xs"
            data-testid="walk-seed"
            inputmode="numeric"
            size="6"
            placeholder={String((shown ?? sent).seed)}
            aria-invalid={refused ? 'true' : undefined}
            bind:value={typed}
            oninput={() => (refused = false)}
            onkeydown={(e) => e.key === 'Enter' && number()}
          /></label
        >
        {#if refused}<span class="note" role="alert">a number from 1 to {num(MOST_SEED)}</span>{/if}
      </p>
    {/if}
  </div>
  <div class="side">
    {#if walk}
      <h2>What its papers say</h2>
      <ul class="about">
        {#each walk.about as line, i (i)}<li>{line}</li>{/each}
      </ul>
      <h2>Called so far</h2>
      {#if walk.told.length === 0}<p class="caption">Nothing yet.</p>{/if}
      <ul class="called" data-testid="called">
        {#each walk.told as t, i (i)}
          <li>
            <span
              class={['mark', t.is === 'caught' && 'right', t.is !== 'caught' && t.is !== 'passed' && 'struck']}
              aria-hidden="true">{t.is === 'passed' ? '✓' : ''}</span
            >
            <span>{t.reading.title}</span>
            <span class="fig">{t.reading.reading}</span>
            <span class="caption">{words[t.is]}</span>
          </li>
        {/each}
      </ul>
      <p class="caption score" data-testid="score">
        {walk.caught} caught, {walk.wentPast} gone past, {walk.falseAlarms} false alarms
      </p>
    {/if}
  </div>
</main>

<style>
  h2 {
    font-weight: 650;
    font-size: 14px;
    margin-top: 6px;
  }
  .last {
    border-left: 3px solid var(--hair);
    padding-left: 10px;
    margin-top: 10px;
  }
  .todo {
    list-style: disc;
    margin-left: 16px;
    font-size: 12px;
  }
  .now {
    border: 1.5px solid var(--ink);
    padding: 10px 14px;
    margin-top: 12px;
    max-width: 720px;
  }
  .cut {
    max-width: 470px;
    margin-top: 8px;
  }
  .meter {
    display: flex;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 10px;
    margin-top: 12px;
  }
  .meter .fig {
    font-size: 46px;
    border-bottom: 4px double var(--ink);
    line-height: 1.1;
  }
  .acts,
  .foot {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
    align-items: center;
    margin-top: 14px;
  }
  .foot label {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 12px;
  }
  .foot input {
    width: 72px;
  }
  .about {
    margin-bottom: 10px;
  }
  .called li {
    display: grid;
    grid-template-columns: 14px 1fr auto;
    gap: 0 6px;
    margin-top: 4px;
  }
  .mark.right,
  .mark.struck {
    width: 11px;
    height: 11px;
    margin-top: 3px;
    border: 1px solid var(--ink);
    background: var(--ink);
  }
  .mark.struck {
    background:
      linear-gradient(to top right, transparent 44%, var(--ink) 44%, var(--ink) 56%, transparent 56%), var(--sheet);
  }
  .called li .caption {
    grid-column: 2 / -1;
  }
  .score {
    border-top: 1px solid var(--hair);
    margin-top: 8px;
    padding-top: 6px;
  }
  @media (max-width: 939px) {
    .acts button {
      min-height: 52px;
      flex: 1 1 140px;
    }
    .foot button,
    .foot label {
      min-height: 44px;
    }
  }
</style>
