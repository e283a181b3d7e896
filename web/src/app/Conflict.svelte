<script lang="ts">
  import { api } from '../api/client'
  import type { BankEvaluation } from '../api/client'
  import { say } from '../ui/quantity'
  import { differences } from './differences'
  import { keeper } from './keeper.svelte'
  import { route } from './route.svelte'
  import { session } from './session.svelte'

  /** Somebody else kept a newer state: what differs, figure by figure, and three ways on. Nothing is lost by waiting. */
  let dialog: HTMLDialogElement
  const conflict = $derived(keeper.conflict!)
  const changes = $derived(differences(conflict.theirs.design, conflict.mine))
  let results = $state.raw<{ label: string; theirs: string; mine: string }[]>([])

  $effect(() => {
    if (keeper.asking) dialog.showModal()
    else dialog.close()
  })
  $effect(() => {
    const { theirs, mine } = conflict
    Promise.all([api.evaluate(theirs.design), api.evaluate(mine)]).then(
      ([a, b]) => (results = figures(a.evaluation.banks[0], b.evaluation.banks[0])),
      () => (results = []),
    )
  })

  function figures(a: BankEvaluation | undefined, b: BankEvaluation | undefined) {
    const rows: [string, (e: BankEvaluation | undefined) => number | null | undefined, string][] = [
      ['a day, from the bank', (e) => e?.energy?.energyBankWh, 'Wh'],
      ['usable', (e) => e?.bank?.holds.usableWh, 'Wh'],
      ['at full load', (e) => e?.currents?.bankWorstA, 'A'],
      ['main fuse', (e) => e?.mainRun?.fuse.ratingA, 'rating'],
      ['main cable', (e) => e?.mainRun?.cable.areaMm2, 'mm2'],
    ]
    return rows
      .map(([label, of, unit]) => ({ label, theirs: text(of(a), unit), mine: text(of(b), unit) }))
      .filter((r) => r.theirs !== r.mine)
  }
  const text = (value: number | null | undefined, unit: string) =>
    value === null || value === undefined ? '–' : say(value, unit, session.units)

  async function copy() {
    const station = session.station
    const id = await keeper.keepMineAsCopy()
    route.toStation(id, station)
  }
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (keeper.asking = false)} aria-labelledby="conflict-title">
  <div class="modal-box border border-(--ink) max-w-3xl">
    <h2 id="conflict-title" class="headline">This design was changed elsewhere meanwhile</h2>
    <p class="note mt-1">Your edit is not lost: it waits here until you choose.</p>
    <div class="overflow-x-auto mt-2">
      <table class="table table-sm text-[13px]" data-testid="differences">
        <thead><tr><th scope="col">what differs</th><th scope="col">theirs</th><th scope="col">mine</th></tr></thead>
        <tbody>
          {#each changes as c (c.pointer)}
            <tr
              ><th scope="row" class="text-[13px]">{c.label}</th><td class="fig text-[14px]">{c.theirs}</td><td
                class="fig text-[14px]">{c.mine}</td
              ></tr
            >
          {/each}
          {#each results as r (r.label)}
            <tr
              ><th scope="row" class="font-normal text-[13px]">so: {r.label}</th><td class="fig text-[14px]"
                >{r.theirs}</td
              ><td class="fig text-[14px]">{r.mine}</td></tr
            >
          {/each}
        </tbody>
      </table>
    </div>
    <div class="modal-action flex-wrap">
      <button type="button" class="btn btn-outline btn-sm" onclick={() => session.take(keeper.takeTheirs())}
        >Take theirs</button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={copy}>Keep mine as a copy</button>
      <button type="button" class="btn btn-primary btn-sm" onclick={() => keeper.putMineOnTop()}>Put mine on top</button
      >
    </div>
  </div>
</dialog>
