<script lang="ts">
  import type { LogEntry } from '../api/client'
  import { api } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num, say } from '../ui/quantity'
  import { long } from './days'
  import { log } from './log.svelte'

  /** What the log is made of: files and made-up monitors, and what was written by hand. All of it can be taken out, and comes back. */
  const words: Record<LogEntry['kind'], string> = {
    reading: 'read',
    test: 'capacity test',
    upkeep: 'upkeep',
    'in-service': 'put to use',
    stored: 'laid up',
    'unit-in': 'came in',
    'unit-moved': 'moved',
    'unit-out': 'out of service',
    'unit-rest': 'at rest',
    'unit-test': 'capacity test',
    'unit-fault': 'note',
  }
  const series = $derived(log.answer?.series ?? [])
  const entries = $derived((log.answer?.entries ?? []).toSorted((a, b) => (a.entry.at < b.entry.at ? 1 : -1)))
  function about(e: LogEntry) {
    const task = log.view?.tasks.find((t) => t.task === e.task)?.label ?? e.task
    return [
      e.serial ? `${e.place ? `${e.place}, ` : ''}${e.serial}` : null,
      e.kind === 'stored' && e.ended ? 'taken out of store' : words[e.kind],
      task,
      e.soc === null ? null : `${num(e.soc * 100)} %`,
      e.volts === null ? null : say(e.volts, 'V'),
      e.amps === null ? null : say(-e.amps, 'A'),
      e.ah === null ? null : `${num(e.ah, 1)} Ah`,
      e.words,
    ]
      .filter(Boolean)
      .join(' · ')
  }
</script>

{#if series.length > 0}
  <details>
    <summary class="caption">{series.length} {series.length === 1 ? 'source' : 'sources'} of readings</summary>
    <ul>
      {#each series as s (s.id)}
        <li data-series={s.id}>
          <span
            >{#if s.kind === 'simulated'}<b>simulated</b>:
            {/if}{s.name}, <span class="fig">{num(s.count)}</span> readings, {long(s.first)} to {long(s.last)}</span
          >
          <span class="acts">
            <button
              type="button"
              class="link-copper"
              onclick={() =>
                api.save(`/api/designs/${session.id}/log/readings.csv?bank=${session.bank!.id}&series=${s.id}`)}
              >as CSV</button
            >
            <button type="button" class="link-copper" onclick={() => log.takeOut(s.id, `${s.name} was taken out`)}
              >take out</button
            >
          </span>
        </li>
      {/each}
    </ul>
  </details>
{/if}
{#if entries.length > 0}
  <details>
    <summary class="caption">{entries.length} entries by hand</summary>
    <ul class="entries">
      {#each entries as e (e.id)}
        <li>
          <span
            ><span class="fig">{e.entry.at.replace('T', ' ')}</span>
            {about(e.entry)}{e.entry.by ? ` (${e.entry.by})` : ''}</span
          >
          <button type="button" class="link-copper" onclick={() => log.takeBack(e.id, 'The entry was taken back')}
            >take back</button
          >
        </li>
      {/each}
    </ul>
  </details>
{/if}

<style>
  li {
    display: flex;
    justify-content: space-between;
    gap: 12px;
    font-size: 12px;
    padding: 2px 0;
    border-bottom: 1px solid var(--grid);
  }
  .acts {
    display: flex;
    gap: 10px;
    white-space: nowrap;
  }
  .entries {
    max-height: 260px;
    overflow: auto;
  }
  @media (max-width: 939px) {
    summary,
    .link-copper {
      min-height: 44px;
    }
  }
</style>
