<script lang="ts">
  import type { Evaluation, Station } from '../api/client'
  import { session } from '../app/session.svelte'
  import TitleLine from '../app/TitleLine.svelte'
  import { stationOf, stations } from '../stations'
  import Mark from '../ui/Mark.svelte'
  import { Trying } from './trying.svelte'

  /** Everything that is found in the design, over all banks and stations, gravest first; it prints whole. */
  type Finding = Evaluation['findings'][number]
  let at = $state<Station | 'all'>('all')
  let notes = $state(true)
  const all = $derived(session.evaluation!.findings)
  const shown = $derived(all.filter((f) => (at === 'all' || f.station === at) && (notes || f.grade !== 'note')))
  const counts = $derived(session.evaluation!.counts)
  const several = $derived(session.design!.banks.length > 1)
  const bankOf = (f: Finding) => session.design!.banks.findIndex((b) => b.id === f.bank)
  const trying = new Trying()
  const words = { danger: 'danger', fault: 'wrong', caution: 'to look at', note: 'note' }
</script>

<svelte:head><title>Findings of {session.evaluation!.name}</title></svelte:head>
<div class="place">
  <TitleLine />
  <main>
    <header>
      <h1 class="headline">
        {counts.wrong === 0 && counts.toLookAt === 0
          ? 'Nothing found wrong'
          : `${counts.wrong} wrong, ${counts.toLookAt} to look at`}
      </h1>
      <span class="only-print">{session.evaluation!.name}</span>
      <span class="tools">
        <label
          ><span class="caption">station</span>
          <select class="select select-xs" bind:value={at} data-testid="findings-station">
            <option value="all">all stations</option>
            {#each stations as s (s.id)}<option value={s.id}>{s.number} {s.name}</option>{/each}
          </select></label
        >
        <label class="check"
          ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={notes} /> notes too</label
        >
        <button type="button" class="btn btn-outline btn-sm" onclick={() => window.print()}>Print</button>
      </span>
    </header>
    <div class="scroll">
      <table data-testid="all-findings">
        <thead><tr><th>grade</th><th>found</th><th>where</th><th class="mend">what can be done</th></tr></thead>
        <tbody>
          {#each shown as f (f.bank + f.rule + f.place)}
            <tr data-rule={f.rule}>
              <td class="grade"
                >{#if f.grade !== 'note'}<Mark kind={f.grade === 'caution' ? 'look' : 'wrong'} />{/if}
                {words[f.grade]}</td
              >
              <td><b>{f.title}</b><br /><span class="why">{f.why}</span></td>
              <td class="where">
                <a
                  class="link-copper"
                  href="#/d/{session.id}/{f.station}"
                  onclick={() => session.toBank(Math.max(0, bankOf(f)))}
                  >{stationOf(f.station).number} {stationOf(f.station).name}</a
                >
                {#if several}<br />{session.design!.banks[bankOf(f)]?.name}{/if}
              </td>
              <td class="mend">
                {#each trying.mendsOf(f) as mend (mend.label)}
                  <div class="offer">
                    <button
                      type="button"
                      class="link-copper"
                      aria-disabled={trying.stale}
                      onclick={() => trying.press(f, mend.label)}>{mend.label}</button
                    >
                    <span class="why">{mend.outcome}</span>
                  </div>
                {/each}
              </td>
            </tr>
          {:else}
            <tr><td colspan="4">Nothing here.</td></tr>
          {/each}
        </tbody>
      </table>
      <p class="note cautions">
        What is not found may still be wrong: it is judged by what was typed in. The rules where the system will be
        used, the makers’ instructions and a qualified person come first.
      </p>
    </div>
  </main>
</div>

<style>
  .place {
    display: grid;
    grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
    height: 100dvh;
  }
  main {
    margin: 0 16px 12px;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    padding: 10px 16px;
    display: grid;
    grid-template-rows: auto minmax(0, 1fr);
    min-height: 0;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 8px 18px;
    margin-bottom: 8px;
  }
  .tools {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 8px 14px;
  }
  .tools label {
    display: flex;
    flex-direction: column;
  }
  .tools .check {
    flex-direction: row;
    align-items: center;
    gap: 6px;
    min-height: 26px;
  }
  .scroll {
    overflow: auto;
    min-height: 0;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--sheet);
    text-align: left;
    font-size: 12px;
    color: var(--ink-2);
    font-weight: 500;
    border-bottom: 1.5px solid var(--ink);
  }
  td,
  th {
    padding: 5px 14px 6px 0;
    vertical-align: top;
  }
  tbody tr {
    border-bottom: 1px solid var(--hair);
  }
  .grade {
    white-space: nowrap;
    font-weight: 650;
  }
  .why {
    color: var(--ink-2);
    font-size: 12.5px;
  }
  .where {
    white-space: nowrap;
  }
  td.mend {
    width: 32%;
  }
  .offer {
    margin-bottom: 3px;
  }
  .offer .link-copper {
    text-align: left;
    min-height: 24px;
  }
  .cautions {
    margin-top: 10px;
  }
  .only-print {
    display: none;
  }
  @media (max-width: 939px) {
    .place {
      display: block;
      height: auto;
    }
    main {
      margin: 0;
      border-inline: 0;
      padding: 12px;
      display: block;
    }
    table,
    tbody,
    tr,
    td {
      display: block;
    }
    thead {
      display: none;
    }
    td,
    td.mend {
      width: auto;
      padding: 2px 0;
    }
    tbody tr {
      padding: 8px 0;
    }
    .where br {
      display: none;
    }
    .offer .link-copper {
      min-height: 44px;
    }
  }
  @media print {
    .place,
    main,
    .scroll {
      display: block;
      height: auto;
      overflow: visible;
      border: 0;
      margin: 0;
    }
    .place > :global(div:first-child),
    .tools {
      display: none;
    }
    .only-print {
      display: inline;
    }
    tr {
      break-inside: avoid;
    }
  }
</style>
