<script lang="ts">
  let { open = $bindable(false) }: { open: boolean } = $props()
  let dialog: HTMLDialogElement
  $effect(() => {
    if (open) dialog.showModal()
    else dialog.close()
  })
  const keys = [
    ['1 … 6', 'Loads, Voltage, Inverter, Bank, Cables & fuses, Charging'],
    ['f', 'fold or unfold the path'],
    ['w', 'fold or unfold the working'],
    ['Enter', 'keep what was typed; on a figure: open its working'],
    ['Esc', 'give back the old value'],
    ['↑ ↓', 'nudge the value of a field, with Shift tenfold'],
    ['on a bar of the day', 'Enter takes it in hand: ← → move it, ↑ ↓ put its end, Shift tenfold; Delete removes it'],
    ['Ctrl Z', 'undo; with Shift redo'],
    ['?', 'this list'],
  ]
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (open = false)} aria-labelledby="keys-title">
  <div class="modal-box border border-(--ink)">
    <h2 id="keys-title" class="headline">Help</h2>
    <p class="note mt-1">
      The work goes along the path from right to left, as the current is followed back: 1 Loads, 2 Voltage, 3 Inverter,
      4 Bank, 5 Cables &amp; fuses; then Builds compares other ways to make the same bank. A choice left alone stands as
      advised and follows every change; one that is made is pinned. Every figure opens its working.
    </p>
    <table class="table mt-2 text-[13px]!">
      <tbody>
        {#each keys as [key, what] (key)}<tr><th scope="row" class="whitespace-nowrap">{key}</th><td>{what}</td></tr
          >{/each}
      </tbody>
    </table>
    <p class="note mt-2">
      Fields take 2,5 and 2.5, 1.5k, 3 kW, 40', ½ h, 12 min, 88 %, 10:00-10:10. A bar of the day is dragged, or drawn
      where it is empty; a click on an hour stretches it to its minutes.
    </p>
    <form method="dialog" class="modal-action"><button class="btn btn-primary btn-sm">Close</button></form>
  </div>
</dialog>
