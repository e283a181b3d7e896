<script lang="ts">
  import { api } from '../../api/client'
  import type { LoadCsvAnswer } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { newId, summary } from './loads'

  /** Load lists in and out as CSV: good lines are taken, bad ones stay for mending. */
  let { open = $bindable(false) }: { open: boolean } = $props()
  const MOST = 500
  const EXAMPLE = 'name,kind,watts,hours,times\nReading lamp,dc,6,4,\nKettle,ac,2000,,8:00-8:06'
  let dialog: HTMLDialogElement
  let text = $state('')
  let answer = $state.raw<LoadCsvAnswer | null>(null)
  let mended = $state<string[]>([])
  let told = $state('')

  $effect(() => {
    if (open) dialog.showModal()
    else dialog.close()
  })

  async function read(csv: string) {
    told = ''
    try {
      answer = await api.readLoads(csv)
      mended = answer.bad.map((b) => b.text)
    } catch (e) {
      told = e instanceof Error ? e.message : 'It could not be read.'
    }
  }

  async function file(list: FileList | null) {
    const chosen = list?.[0]
    if (!chosen) return
    text = await chosen.text()
    await read(text)
  }

  const room = $derived(MOST - (session.bank?.demand.loads.length ?? 0))

  /** The good lines go into the design at once; what is left is read again as it stands now. */
  async function take() {
    if (!answer) return
    const loads = session.bank!.demand.loads
    const added = answer.loads.slice(0, room).map((l) => ({ ...l, id: newId() }))
    if (added.length > 0) session.edit({ path: '~/demand/loads', value: [...loads, ...added] }, true)
    told = `${added.length} ${added.length === 1 ? 'load' : 'loads'} added`
    if (answer.bad.length === 0) return done()
    answer = { ...answer, loads: [] }
  }

  async function again() {
    const said = told
    await read([answer!.head, ...mended].join('\n'))
    if (answer!.loads.length > 0 && answer!.bad.length === 0) await take()
    else if (!told) told = said
  }

  function done() {
    open = false
    answer = null
    text = told = ''
  }
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (open = false)} aria-labelledby="lists-title">
  <div class="modal-box border border-(--ink) max-w-3xl">
    <h2 id="lists-title" class="headline">A load list as CSV</h2>
    <p class="note mt-1">
      The first line names the columns, in any order: name, kind (ac, dc, converter), watts or amps, volts, quantity,
      hours or times, duty, start watts, start seconds, season.
    </p>
    {#if !answer || (answer.loads.length === 0 && answer.bad.length === 0)}
      <label class="block mt-2"
        ><span class="caption">Paste it here</span>
        <textarea class="textarea w-full" rows="8" spellcheck="false" placeholder={EXAMPLE} bind:value={text}
        ></textarea></label
      >
    {:else}
      {#if answer.loads.length > 0}
        <p class="mt-3" data-testid="csv-good">
          <b>{answer.loads.length} {answer.loads.length === 1 ? 'line is' : 'lines are'} good:</b>
          <span class="note"
            >{answer.loads
              .slice(0, 4)
              .map((l) => `${l.name} (${summary(l)})`)
              .join('; ')}{answer.loads.length > 4 ? ` and ${answer.loads.length - 4} more` : ''}</span
          >
        </p>
      {/if}
      {#if answer.bad.length > 0}
        <p class="mt-3">
          <b>{answer.bad.length} {answer.bad.length === 1 ? 'line wants' : 'lines want'} mending</b>
          <span class="caption fig">{answer.head}</span>
        </p>
        {#each answer.bad as bad, i (bad.line + bad.text)}
          <label class="block mt-1.5" data-testid="csv-bad"
            ><span class="bad">line {bad.line}: {bad.reason}</span>
            <input class="input input-xs w-full" spellcheck="false" bind:value={mended[i]} /></label
          >
        {/each}
      {/if}
    {/if}
    <p class="note mt-2" role="status">{told}</p>
    <div class="modal-action flex-wrap">
      <a
        class="btn btn-outline btn-sm mr-auto"
        href="/api/designs/{session.id}/loads.csv?bank={session.bankIndex}"
        download>Save this design’s list</a
      >
      {#if answer && answer.loads.length > 0}
        <button type="button" class="btn btn-primary btn-sm" onclick={take}
          >Add {Math.min(room, answer.loads.length)} {answer.loads.length === 1 ? 'load' : 'loads'}</button
        >
      {:else if answer && answer.bad.length > 0}
        <button type="button" class="btn btn-primary btn-sm" onclick={again}>Read the mended lines</button>
      {:else}
        <label class="btn btn-outline btn-sm"
          >Open a file<input
            type="file"
            accept=".csv,.txt,text/csv"
            class="sr-only"
            onchange={(e) => void file(e.currentTarget.files)}
          /></label
        >
        <button type="button" class="btn btn-primary btn-sm" disabled={!text.trim()} onclick={() => read(text)}
          >Read it</button
        >
      {/if}
      <button type="button" class="btn btn-outline btn-sm" onclick={done}>Close</button>
    </div>
  </div>
</dialog>

<style>
  .bad {
    font-size: 12.5px;
    font-weight: 600;
  }
  textarea {
    font-size: 13px;
    border-color: var(--ink-3);
  }
</style>
