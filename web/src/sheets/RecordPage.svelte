<script lang="ts">
  import type { BringUpLine } from '../api/client'
  import { sheets } from './sheets.svelte'

  /** What the meter said, in the order of the steps: as it is signed and kept. */
  const lines = $derived(sheets.answer!.record)
  const made = $derived(lines.some((l) => l.simulated !== null && l.simulated !== undefined))
  const parts = $derived.by(() => {
    const list: { title: string; lines: BringUpLine[] }[] = []
    for (const line of lines) {
      if (list.at(-1)?.title !== line.part) list.push({ title: line.part, lines: [] })
      list.at(-1)!.lines.push(line)
    }
    return list
  })
  const said = (l: BringUpLine) =>
    l.value === null || l.value === undefined ? l.what : `${l.value.toFixed(l.decimals).replace('-', '−')} ${l.unit}`
  const when = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
</script>

<p class="lead note">
  Each step with what the meter said, who read it and when; measured again keeps both. {made
    ? 'Lines marked so are of a made-up bank, and prove nothing.'
    : ''}
</p>
<table data-testid="record">
  <thead>
    <tr
      ><th>step</th><th class="n">it said</th><th>should be</th><th>judged</th><th>when</th><th>by</th><th>remark</th
      ></tr
    >
  </thead>
  <tbody>
    {#each parts as p, i (i)}
      <tr class="title"><th colspan="7" scope="colgroup">{p.title}</th></tr>
      {#each p.lines as l, n (n)}
        <tr>
          <td>{l.step}</td>
          <td class="n fig">{said(l)}{l.amps ? ` at ${l.amps.toFixed(1)} A` : ''}</td>
          <td>{l.expected}</td>
          <td>{l.judged}</td>
          <td class="when">{when.format(new Date(l.at))}</td>
          <td>{l.by}</td>
          <td>{l.words}{l.simulated !== null && l.simulated !== undefined ? ` made-up ${l.simulated}` : ''}</td>
        </tr>
      {/each}
    {/each}
  </tbody>
</table>

<style>
  .when {
    white-space: nowrap;
  }
</style>
