<script lang="ts">
  import { api } from '../api/client'
  import type { MonitorShape } from '../api/client'
  import Dialog from '../ui/Dialog.svelte'
  import { num } from '../ui/quantity'
  import { log } from './log.svelte'

  /** A monitor's file: how it was understood is shown and may be put right before it is taken in. */
  interface Props {
    open: boolean
    onclose: () => void
  }
  let { open, onclose }: Props = $props()
  const HEAD_BYTES = 60_000

  let file = $state<File | null>(null)
  let shape = $state<MonitorShape | null>(null)
  let trouble = $state<string | null>(null)
  let outcome = $state<string | null>(null)

  const columns = $derived(
    shape
      ? Array.from({ length: Math.max(...shape.sample.map((r) => r.length), shape.heads.length) }, (_, c) => c)
      : [],
  )
  const headOf = (c: number) => shape?.heads[c] || `column ${c + 1}`
  const roles = [
    { key: 'time', text: 'time' },
    { key: 'clock', text: 'time of day' },
    { key: 'volts', text: 'volts' },
    { key: 'amps', text: 'amperes' },
    { key: 'charge', text: 'charge' },
    { key: 'watts', text: 'watts' },
    { key: 'temperature', text: 'temperature' },
  ] as const
  const roleOf = (c: number) => roles.find((r) => shape?.[r.key] === c)?.key ?? ''
  const ready = $derived(
    shape !== null && (shape.volts !== null || shape.amps !== null || shape.charge !== null || shape.watts !== null),
  )

  async function choose(e: Event) {
    file = (e.currentTarget as HTMLInputElement).files?.[0] ?? null
    shape = null
    outcome = null
    trouble = null
    if (!file) return
    try {
      // A character that is cut through at the end is no part of a line that is shown.
      shape = await api.recogniseMonitor(await file.slice(0, HEAD_BYTES).text())
    } catch (e) {
      trouble = e instanceof Error ? e.message : 'The file cannot be read.'
    }
  }

  function assign(column: number, role: string) {
    if (!shape) return
    const next = { ...shape } as MonitorShape & Record<string, unknown>
    for (const r of roles) if (next[r.key] === column && r.key !== 'time') next[r.key] = null as never
    if (role === 'time') next.time = column
    else if (role) next[role] = column
    shape = next
  }

  async function take() {
    if (!file || !shape) return
    trouble = null
    const told = { ...shape, heads: [], sample: [] }
    const last = await log.takeIn(file, JSON.stringify(told))
    if (last?.fault) trouble = last.fault
    else if (last?.series && last.read) {
      outcome =
        `${num(last.readings)} readings were taken in` +
        (last.read.missed > 0 ? `, ${num(last.read.missed)} lines are none` : '') +
        (last.read.backwards > 0
          ? `, ${num(last.read.backwards)} went back in time and are left out: an hour that the clock was set back is counted once`
          : '') +
        '.'
      file = null
      shape = null
    } else trouble = log.trouble
  }
</script>

<Dialog {open} title="Take in a monitor’s file" wide onclose={() => (log.stopTakingIn(), onclose())}>
  <p class="note">
    A CSV file as the monitor or its app writes it: a line a reading, with its time, and volts, amperes, charge, watts
    or temperature in columns. It stays on this machine.
  </p>
  <label class="file"
    ><span class="sr-only">File</span><input
      type="file"
      accept=".csv,.txt,text/csv,text/plain"
      data-testid="monitor-file"
      disabled={log.coming !== null}
      onchange={choose}
    /></label
  >
  {#if trouble}<p role="alert" class="note"><b>{trouble}</b></p>{/if}
  {#if outcome}<p class="note" data-testid="taken-in">{outcome}</p>{/if}
  {#if log.coming}
    <div class="progress" role="status">
      <progress value={log.coming.share} max="1"></progress>
      <span class="fig" data-testid="coming">{num(log.coming.readings)}</span> readings
      <button type="button" class="btn btn-outline btn-sm" onclick={() => log.stopTakingIn()}>Stop</button>
    </div>
  {:else if shape}
    <p class="note">This is how it was understood. Put right what is wrong.</p>
    <div class="scroll">
      <table>
        <thead>
          <tr>
            {#each columns as c (c)}
              <th>
                <span class="caption">{headOf(c)}</span>
                <select
                  class="select select-xs"
                  aria-label="what {headOf(c)} is"
                  value={roleOf(c)}
                  onchange={(e) => assign(c, e.currentTarget.value)}
                >
                  <option value="">not used</option>
                  {#each roles as r (r.key)}<option value={r.key}>{r.text}</option>{/each}
                </select>
              </th>
            {/each}
          </tr>
        </thead>
        <tbody>
          {#each shape.sample as row, i (i)}
            <tr
              >{#each columns as c (c)}<td class={['fig', !roleOf(c) && 'pale']}>{row[c] ?? ''}</td>{/each}</tr
            >
          {/each}
        </tbody>
      </table>
    </div>
    <div class="fields">
      <label
        ><span class="caption">times are</span>
        <select class="select select-xs" bind:value={shape.timeForm}>
          <option value="iso">2026-11-29 14:05</option>
          <option value="day-first">29.11.2026, day first</option>
          <option value="month-first">11/29/2026, month first</option>
          <option value="unix-seconds">seconds since 1970</option>
          <option value="unix-milliseconds">milliseconds since 1970</option>
        </select></label
      >
      {#if shape.amps !== null || shape.watts !== null}
        <label
          ><span class="caption">charging is</span>
          <select
            class="select select-xs"
            value={shape.chargePositive ? '+' : '-'}
            onchange={(e) => (shape = { ...shape!, chargePositive: e.currentTarget.value === '+' })}
          >
            <option value="+">written without a minus</option>
            <option value="-">written with a minus</option>
          </select></label
        >
      {/if}
      {#if shape.charge !== null}
        <label
          ><span class="caption">charge is in</span>
          <select class="select select-xs" bind:value={shape.chargeUnit}>
            <option value="percent">percent</option>
            <option value="fraction">parts of one</option>
            <option value="ah-left">Ah that are left</option>
            <option value="ah-out">Ah taken out</option>
          </select></label
        >
      {/if}
      <label
        ><span class="caption">13,2 means</span>
        <select
          class="select select-xs"
          value={shape.decimalComma ? 'comma' : 'point'}
          onchange={(e) => (shape = { ...shape!, decimalComma: e.currentTarget.value === 'comma' })}
        >
          <option value="comma">thirteen and a fifth</option>
          <option value="point">two columns</option>
        </select></label
      >
    </div>
    <button type="button" class="btn btn-primary btn-sm" disabled={!ready} onclick={take}>Take it in</button>
  {/if}
</Dialog>

<style>
  .file {
    display: block;
    margin: 10px 0;
  }
  .scroll {
    overflow-x: auto;
    margin: 8px 0;
  }
  table {
    border-collapse: collapse;
    font-size: 12.5px;
  }
  th {
    text-align: left;
    font-weight: 400;
    padding: 0 10px 4px 0;
    vertical-align: bottom;
  }
  th .caption {
    display: block;
  }
  th select {
    min-width: 104px;
  }
  td {
    padding: 1px 10px 1px 0;
    border-top: 1px solid var(--grid);
    white-space: nowrap;
  }
  .pale {
    color: var(--ink-3);
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    margin: 8px 0 12px;
  }
  .fields label {
    display: inline-flex;
    flex-direction: column;
  }
  .progress {
    display: flex;
    gap: 10px;
    align-items: center;
    margin: 8px 0;
  }
  @media (max-width: 939px) {
    select,
    .btn,
    input {
      min-height: 44px;
    }
  }
</style>
