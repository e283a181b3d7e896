<script lang="ts">
  import { untrack } from 'svelte'
  import type { LogEntry, LogView } from '../api/client'
  import { session } from '../app/session.svelte'
  import Dialog from '../ui/Dialog.svelte'
  import { parse } from '../ui/quantity'
  import type { Kind } from '../ui/quantity'
  import { today } from './days'
  import { log } from './log.svelte'

  /** What is written down by hand: a reading, a test, upkeep, a unit that came, moved, was measured, failed or went. */
  export interface Wish {
    kind: LogEntry['kind']
    task?: string | null
    place?: string | null
    serial?: string | null
  }
  interface Props {
    wish: Wish | null
    view: LogView
    onclose: () => void
  }
  let { wish, view, onclose }: Props = $props()

  const kinds: { kind: LogEntry['kind']; text: string }[] = [
    { kind: 'reading', text: 'the bank was read' },
    { kind: 'test', text: 'capacity test of the bank' },
    { kind: 'upkeep', text: 'upkeep was done' },
    { kind: 'unit-in', text: 'a unit came in' },
    { kind: 'unit-rest', text: 'rest volts of a unit' },
    { kind: 'unit-test', text: 'capacity test of a unit' },
    { kind: 'unit-fault', text: 'a fault of a unit, or work on it' },
    { kind: 'unit-moved', text: 'a unit was moved' },
    { kind: 'unit-out', text: 'a unit went out of service' },
    { kind: 'in-service', text: 'the bank was put to use' },
    { kind: 'stored', text: 'the bank was laid up' },
  ]

  let kind = $state<LogEntry['kind']>('reading')
  let by = $state('')
  let at = $state('')
  let typed = $state<Record<string, string>>({})
  let ended = $state(false)
  let fault = $state<string | null>(null)

  $effect(() => {
    if (!wish) return
    untrack(() => {
      kind = wish.kind
      at = kind === 'reading' ? `${today()}T${new Date().toTimeString().slice(0, 5)}` : today()
      typed = { task: wish.task ?? view.upkeep[0]?.task ?? '', place: wish.place ?? '', serial: wish.serial ?? '' }
      by ||= session.design?.bringUp.by ?? ''
      fault = null
      ended = false
    })
  })
  const needs = $derived({
    volts: kind === 'reading' || kind === 'unit-rest',
    soc: kind === 'reading',
    amps: kind === 'reading',
    ah: kind === 'test' || kind === 'unit-test',
    task: kind === 'upkeep',
    unit: kind.startsWith('unit-'),
    place: kind === 'unit-in' || kind === 'unit-moved',
    bought: kind === 'unit-in',
    words: kind !== 'reading' && kind !== 'unit-rest',
  })
  const known = $derived(view.units.filter((u) => u.serial))
  const places = $derived(view.units.filter((u) => u.place).map((u) => u.place!))

  function number(key: string, unit: Kind): number | undefined | null {
    const text = (typed[key] ?? '').replace('%', '').trim()
    if (!text) return undefined
    const read = parse(text, unit, session.units)
    return 'value' in read ? read.value : null
  }

  async function keep() {
    const soc = (typed.soc ?? '').trim()
    const values = {
      volts: number('volts', 'voltage'),
      amps: number('amps', 'current'),
      ah: number('ah', 'charge'),
      price: number('price', 'number'),
      // A charge is typed in percent, with the sign or without.
      soc: soc ? number('soc', 'number') : undefined,
    }
    const wrong = Object.entries(values).find(([, v]) => v === null)
    if (wrong) {
      fault = `“${typed[wrong[0]]}” is no number that can be read.`
      return
    }
    const place = (typed.place ?? '').trim().toUpperCase()
    const entry: Partial<LogEntry> = {
      kind,
      at: kind === 'reading' ? at : at.slice(0, 10),
      by,
      ...(needs.volts && values.volts !== undefined ? { volts: values.volts } : {}),
      ...(needs.amps && values.amps !== undefined ? { amps: values.amps } : {}),
      ...(needs.soc && typeof values.soc === 'number' ? { soc: values.soc / 100 } : {}),
      ...(needs.ah && values.ah !== undefined ? { ah: values.ah } : {}),
      ...(needs.task ? { task: typed.task } : {}),
      ...(needs.unit ? { serial: (typed.serial ?? '').trim() } : {}),
      ...(needs.place ? { place } : {}),
      ...(needs.bought && typed.bought ? { bought: typed.bought } : {}),
      ...(needs.bought && values.price !== undefined ? { price: values.price } : {}),
      ...(needs.bought
        ? { item: view.units.find((u) => u.place === place)?.item ?? session.bank?.unit?.name ?? '' }
        : {}),
      ...(kind === 'stored' ? { ended } : {}),
      ...(typed.words?.trim() ? { words: typed.words.trim() } : {}),
    } as Partial<LogEntry>
    if (await log.write([entry])) onclose()
    else fault = log.trouble
  }
</script>

{#snippet field(key: string, label: string, placeholder = '', width = '110px')}
  <label
    ><span class="caption">{label}</span><input
      class="input input-xs"
      style:width
      data-entry={key}
      {placeholder}
      value={typed[key] ?? ''}
      oninput={(e) => (typed[key] = e.currentTarget.value)}
    /></label
  >
{/snippet}

<Dialog open={wish !== null} title="Write it down" {onclose}>
  <form
    onsubmit={(e) => {
      e.preventDefault()
      void keep()
    }}
  >
    <div class="fields">
      <label
        ><span class="caption">what</span><select class="select select-xs" bind:value={kind} data-entry="kind">
          {#each kinds as k (k.kind)}<option value={k.kind}>{k.text}</option>{/each}
        </select></label
      >
      <label
        ><span class="caption">{kind === 'reading' ? 'when' : 'day'}</span>
        {#if kind === 'reading'}<input type="datetime-local" class="input input-xs" bind:value={at} data-entry="at" />
        {:else}<input
            type="date"
            class="input input-xs"
            value={at.slice(0, 10)}
            data-entry="at"
            onchange={(e) => (at = e.currentTarget.value)}
          />{/if}</label
      >
      <label
        ><span class="caption">by</span><input
          class="input input-xs"
          style:width="110px"
          bind:value={by}
          data-entry="by"
        /></label
      >
    </div>
    <div class="fields">
      {#if needs.soc}{@render field('soc', 'charge, %', '62')}{/if}
      {#if needs.volts}{@render field('volts', 'volts', kind === 'unit-rest' ? '13.31' : '26.4')}{/if}
      {#if needs.amps}{@render field('amps', 'amperes out, − in', '4.2')}{/if}
      {#if needs.ah}{@render field('ah', 'Ah given', '385')}{/if}
      {#if needs.task}
        <label
          ><span class="caption">task</span><select class="select select-xs" bind:value={typed.task} data-entry="task">
            {#each view.tasks as t (t.task)}<option value={t.task}>{t.label}</option>{/each}
          </select></label
        >
      {/if}
      {#if needs.unit}
        {#if kind === 'unit-in'}{@render field(
            'serial',
            'serial, or what tells it from the others',
            '0417-2210',
            '220px',
          )}
        {:else}
          <label
            ><span class="caption">unit</span><select
              class="select select-xs"
              value={typed.serial ?? ''}
              data-entry="serial"
              onchange={(e) => (typed.serial = e.currentTarget.value)}
            >
              <option value="">choose…</option>
              {#each known as u (u.serial)}<option value={u.serial}
                  >{u.place ? `${u.place}, ` : 'out of service, '}{u.serial}</option
                >{/each}
            </select></label
          >
        {/if}
      {/if}
      {#if needs.place}
        <label
          ><span class="caption">place</span><select
            class="select select-xs"
            value={typed.place ?? ''}
            data-entry="place"
            onchange={(e) => (typed.place = e.currentTarget.value)}
          >
            <option value="">choose…</option>
            {#each places as p (p)}<option value={p}>{p}</option>{/each}
          </select></label
        >
      {/if}
      {#if needs.bought}
        <label
          ><span class="caption">bought</span><input
            type="date"
            class="input input-xs"
            value={typed.bought ?? ''}
            onchange={(e) => (typed.bought = e.currentTarget.value)}
          /></label
        >
        {@render field('price', 'price')}
      {/if}
      {#if kind === 'stored'}
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={ended} /> it was taken out of store again</label
        >
      {/if}
      {#if needs.words}{@render field('words', 'in words', '', '260px')}{/if}
    </div>
    {#if kind === 'unit-rest' || kind === 'reading'}
      <p class="caption">Volts tell a charge after a rest of two hours, lead of twelve, with nothing drawn.</p>
    {:else if kind === 'unit-moved' || kind === 'unit-out' || kind === 'unit-in' || kind === 'unit-fault'}
      <p class="caption">
        A battery cannot be switched off: a short gives thousands of amperes. One terminal at a time, every positive you
        do not work on covered.
      </p>
    {/if}
    {#if fault}<p role="alert" class="note"><b>{fault}</b></p>{/if}
    <button type="submit" class="btn btn-primary btn-sm" data-testid="keep-entry">Write it down</button>
  </form>
</Dialog>

<style>
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    margin: 10px 0;
    align-items: flex-end;
  }
  .fields label {
    display: inline-flex;
    flex-direction: column;
  }
  .fields .tick {
    flex-direction: row;
    gap: 6px;
    align-items: center;
  }
  select {
    max-width: 320px;
  }
  @media (max-width: 939px) {
    input,
    select,
    .btn {
      min-height: 44px;
    }
  }
</style>
