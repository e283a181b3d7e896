<script lang="ts">
  import { tick, untrack } from 'svelte'
  import { tinykeys } from 'tinykeys'
  import { api } from '../api/client'
  import type { Change } from '../api/client'
  import Conflict from '../app/Conflict.svelte'
  import { keeper } from '../app/keeper.svelte'
  import { session } from '../app/session.svelte'
  import { undoKeys } from '../app/undoKeys'
  import TitleLine from '../app/TitleLine.svelte'
  import CutsPage from './CutsPage.svelte'
  import FusesPage from './FusesPage.svelte'
  import Ledger from './Ledger.svelte'
  import MeansNow from './MeansNow.svelte'
  import PartsPage from './PartsPage.svelte'
  import RecordPage from './RecordPage.svelte'
  import SettingsPage from './SettingsPage.svelte'
  import { sheets } from './sheets.svelte'
  import './paper.css'
  import Wiring from './Wiring.svelte'
  import WordsPage from './WordsPage.svelte'

  /** The papers of one design, and the ledger of how far it is built. */
  const PAUSE_MS = 80

  $effect(() => {
    void session.id
    untrack(() => sheets.reset())
    return () => untrack(() => sheets.reset())
  })
  // Any change of the design, and a new revision, is another set of papers.
  $effect(() => {
    void session.worked
    void session.evaluation
    void keeper.keptAt
    void keeper.waiting
    const timer = setTimeout(() => void sheets.ask(), PAUSE_MS)
    return () => clearTimeout(timer)
  })
  $effect(() => {
    untrack(() => session.release())
    return tinykeys(window, undoKeys({}, 'input, textarea, dialog'))
  })

  let [trouble, told] = $state(['', ''])
  let single = $state(false)
  let only = $state<'all' | 'labels'>('all')
  let drawn = $state(false)

  async function print(what: 'all' | 'labels') {
    only = what
    await tick()
    window.print()
    only = 'all'
  }
  /** The server packs what it keeps. */
  async function save(path: string) {
    trouble = ''
    try {
      await session.commit()
      await api.save(`/api/designs/${session.id}/${path}`)
    } catch (e) {
      trouble = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }
  async function comesBack(e: Event) {
    const input = e.currentTarget as HTMLInputElement
    const [list] = input.files ?? []
    trouble = told = ''
    if (!list) return
    try {
      const back = await api.readList(session.design!, await list.text())
      const bad = back.bad.slice(0, 3).map((b) => `line ${b.line}: ${b.reason}`)
      if (back.changes.length > 0) session.edit(back.changes as Change[], true)
      const made = `${back.changes.length} ${back.changes.length === 1 ? 'change' : 'changes'}`
      const missed = bad.length > 0 ? `; ${back.bad.length} not understood: ${bad.join('; ')}` : ''
      told = `${back.read} lines of ${list.name} read, ${made}${missed}.`
    } catch (error) {
      trouble = error instanceof Error ? error.message : 'The server does not answer.'
    }
    input.value = ''
  }
  const answer = $derived(sheets.answer)
  /** The record is a paper once there is something in it. */
  const PAGES = $derived([
    'Wiring',
    'Parts',
    'Cuts and labels',
    'Fuses',
    'Settings',
    'Walk-through',
    'For the supplier',
    ...(answer && answer.record.length > 0 ? ['Record'] : []),
  ])
  const name = $derived(answer?.name ?? session.evaluation!.name)
</script>

<svelte:head><title>{name}, sheets</title></svelte:head>
<div class="bench" data-printing={only}>
  <div class="no-print"><TitleLine /></div>
  <main class="sheet">
    <div class="left">
      <h1 class="headline no-print" data-testid="headline">
        {answer?.ledger.headline ?? 'The papers are being drawn'}
      </h1>
      {#if sheets.trouble ?? session.failure}<p role="alert" class="note no-print">
          {sheets.trouble ?? session.failure}
        </p>{/if}
      <div class="pages no-print" role="tablist" aria-label="Pages">
        {#each PAGES as word, i (word)}
          <button
            type="button"
            role="tab"
            id="tab-{i}"
            aria-selected={sheets.page === i}
            aria-controls="page-{i}"
            class={[sheets.page === i && 'on']}
            onclick={() => {
              sheets.page = i
              drawn = true
            }}><b class="fig">{i + 1}</b> {word}</button
          >
        {/each}
        {#if sheets.page === 0 && answer && answer.drawing.sheets.length > 1}
          <span class="which" role="group" aria-label="Sheets of the drawing">
            sheet
            {#each answer.drawing.sheets as s, i (i)}<button
                type="button"
                class={['fig', i === sheets.sheet && 'on']}
                aria-pressed={i === sheets.sheet}
                title={s.title}
                onclick={() => (sheets.sheet = i)}>{i + 1}</button
              >{/each}
          </span>
        {:else}<span class="caption which">as it prints, A4 or Letter</span>{/if}
      </div>
      {#if answer}
        <div class={['papers', drawn && 'shown']} data-testid="papers">
          {#each PAGES as word, i (word)}
            <div
              id="page-{i}"
              role="tabpanel"
              aria-labelledby="tab-{i}"
              class={['page', `page-${i}`, sheets.page !== i && 'off']}
            >
              {#if i > 0}
                <header>
                  <b>{word}</b><span>{name}</span><span class="caption"
                    >{i + 1} of {PAGES.length}{answer.revision ? `, revision ${answer.revision}` : ''}</span
                  >
                </header>
              {/if}
              {#if i === 0}<Wiring />
              {:else if i === 1}<PartsPage />
              {:else if i === 2}<CutsPage />
              {:else if i === 3}<FusesPage />
              {:else if i === 4}<SettingsPage />
              {:else if i === 5}
                <WordsPage
                  sections={[
                    ...answer.walk,
                    { title: 'To be heeded', sentences: answer.cautions },
                    { title: 'Tables and rules used', sentences: answer.tables },
                  ]}
                />
                <p class="sign"><span>Checked by</span><span>Licence</span><span>Date</span></p>
              {:else if i === 6}<WordsPage sections={answer.brief} />{:else}<RecordPage />{/if}
            </div>
          {/each}
        </div>
      {/if}
      <div class="acts no-print">
        <button type="button" class="btn btn-primary btn-sm" onclick={() => void print('all')}
          >Print these {PAGES.length === 8 ? 'eight' : 'seven'}</button
        >
        <button type="button" class="link-copper strong" data-testid="zip" onclick={() => void save('sheets.zip')}
          >everything, as a zip</button
        >
        {#if answer}
          <button type="button" class="link-copper" onclick={() => void print('labels')}>print the labels</button>
          <button type="button" class="link-copper" aria-expanded={single} onclick={() => (single = !single)}
            >single files</button
          >
          <label class="link-copper back"
            >a list comes back<input
              type="file"
              accept=".csv,text/csv"
              class="sr-only"
              data-testid="list-back"
              title="parts, copper or settings of the zip, filled in"
              onchange={(e) => void comesBack(e)}
            /></label
          >
        {/if}
        <a class="link-copper" href="#/d/{session.id}/summary">on one page</a>
      </div>
      {#if single && answer}
        <p class="files no-print" data-testid="files">
          {#each answer.files as name (name)}<button
              type="button"
              class="link-copper"
              data-file={name}
              onclick={() => void save(`sheets/${name}`)}>{name}</button
            >{/each}
        </p>
      {/if}
      {#if trouble}<p role="alert" class="note no-print">{trouble}</p>{/if}
      {#if told}<p role="status" class="note no-print" data-testid="told">{told}</p>{/if}
    </div>
    <div class="right no-print">
      {#if answer}
        <MeansNow />
        {#if answer.ledger.rows.length > 0}<Ledger />{:else}<p class="note">
            Here every part will stand with how far it has come: planned, ordered, here, fitted, proven.
          </p>{/if}
      {/if}
    </div>
  </main>
</div>
{#if keeper.conflict}<Conflict />{/if}

<style>
  .bench {
    display: flex;
    flex-direction: column;
    height: 100dvh;
    padding-bottom: 12px;
  }
  .sheet {
    flex: 1;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 336px;
    margin: 4px 16px 0;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    min-height: 0;
  }
  .left {
    display: flex;
    flex-direction: column;
    padding: 10px 11px 8px 13px;
    min-height: 0;
  }
  .right {
    margin: 10px 0;
    padding: 0 12px;
    border-left: 1px solid var(--hair);
    overflow: auto;
  }
  .pages {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 2px;
    margin: 4px 0 6px;
    font-size: 13px;
  }
  .pages button {
    padding: 2px 9px;
    min-height: 26px;
    border: 1px solid transparent;
    cursor: pointer;
  }
  .pages .on {
    border-color: var(--ink);
    background: var(--tint);
    font-weight: 650;
  }
  .which {
    margin-left: auto;
  }
  .pages .which button {
    padding-inline: 6px;
  }
  .papers {
    flex: 1;
    overflow: auto;
    min-height: 0;
    border: 1px solid var(--hair);
  }
  .page:not(.page-0) {
    padding: 14px 18px;
  }
  header {
    display: flex;
    gap: 14px;
    align-items: baseline;
    border-bottom: 1.6px solid var(--ink);
    margin-bottom: 8px;
    padding-bottom: 2px;
  }
  header b {
    font-size: 16px;
  }
  header .caption {
    margin-left: auto;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 16px;
    padding-top: 8px;
    font-size: 12.5px;
  }
  .acts .link-copper:not(.strong) {
    font-weight: 500;
  }
  .files {
    display: flex;
    flex-wrap: wrap;
    gap: 0 14px;
    font-size: 12px;
    max-height: 76px;
    overflow: auto;
  }
  .files button {
    min-height: 24px;
    font-weight: 500;
  }
  .back {
    display: inline-flex;
    align-items: center;
  }
  .back:focus-within {
    outline: 2px solid var(--ink);
  }
  .sign {
    display: grid;
    grid-template-columns: 2fr 1.4fr 1fr;
    gap: 16px;
    margin-top: 40px;
    max-width: 76ch;
  }
  .sign span {
    border-top: 1px solid var(--ink);
    padding-top: 2px;
  }
  @media screen {
    .off {
      display: none;
    }
  }
  @media (max-width: 939px) {
    .bench {
      display: block;
      height: auto;
    }
    /* The ledger first: it is what a hand in the van is on. */
    .sheet {
      display: flex;
      flex-direction: column;
      margin: 0;
      border-inline: 0;
    }
    .left {
      display: contents;
    }
    .left > * {
      order: 2;
      margin-inline: 12px;
    }
    .left > h1 {
      order: 0;
      margin-top: 10px;
    }
    .right {
      order: 1;
      border: 0;
      overflow: visible;
    }
    .papers {
      display: none;
      overflow-x: auto;
    }
    .papers.shown {
      display: block;
    }
    .pages {
      flex-direction: column;
      align-items: stretch;
    }
    .pages button {
      min-height: 44px;
      text-align: left;
      border: 0;
      border-top: 1px solid var(--hair);
    }
    .which {
      margin: 0;
      padding: 4px 9px;
      order: 1;
    }
    .pages .which button {
      display: inline-block;
      border: 1px solid var(--hair);
      min-width: 44px;
      text-align: center;
    }
    .acts {
      padding-bottom: 16px;
    }
    .acts .link-copper {
      min-height: 44px;
    }
  }
  @page {
    margin: 10mm;
  }
  @page across {
    size: landscape;
    margin: 8mm;
  }
  @media print {
    .no-print {
      display: none !important;
    }
    .bench,
    .sheet,
    .left,
    .papers {
      display: block;
      height: auto;
      overflow: visible;
      border: 0;
      margin: 0;
      padding: 0;
      background: #fff;
      /* Paper is white, whatever the screen is. */
      --sheet: #fff;
      --ink: #000;
      --ink-2: #333;
      --ink-3: #555;
      --hair: #aaa;
      --copper: #b65a22;
      --copper-body: #f0cdb0;
      --tint: #fff;
      color: #000;
    }
    .page {
      break-before: page;
    }
    .page-0 {
      page: across;
      break-before: auto;
    }
    .page:not(.page-0) {
      padding: 0;
    }
    [data-printing='labels'] .page:not(.page-2) {
      display: none;
    }
    [data-printing='labels'] .page-2 > :global(:not(.labels)) {
      display: none;
    }
  }
</style>
