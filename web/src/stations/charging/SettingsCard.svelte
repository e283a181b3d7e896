<script lang="ts">
  import type { Schemas } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { fieldText, num, parse, say } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { bench } from './bench.svelte'

  /** What one device is to be set to, in the order its menu asks: what was found, what it is to be, put in, and seen on the meter. */
  type Row = Schemas['CardRow']
  const charging = $derived(session.result!.charging!)
  const card = $derived(bench.card!)
  const source = $derived(charging.sources.find((s) => s.id === card.device))
  const others = $derived(charging.cards.filter((c) => c.device !== card.device))

  const today = () => new Date().toISOString().slice(0, 10)
  const write = (v: number, unit: string) =>
    unit === 'fraction' ? `${num(v * 100, 1)} %` : say(v, unit === 'V' ? 'class' : unit)
  const short = (v: number, unit: string) => write(v, unit).replace(/ (V|A|Ah|min|mV|°C)$/, '')

  function standing(row: Row): Record<string, unknown> | null {
    let here: unknown = session.bank
    for (const part of row.path.split('/').slice(1)) here = (here as Record<string, unknown> | null)?.[part]
    return (here ?? null) as Record<string, unknown> | null
  }
  /** The entry of the document with something of it changed; one of monitor or inverter says whose it is. */
  function put(row: Row, change: Record<string, unknown>, commit: boolean) {
    const kept = row.path.startsWith('/cards/')
    const blank = {
      value: null,
      set: false,
      seen: null,
      date: null,
      ...(kept ? { device: card.device, name: row.setting } : {}),
    }
    session.edit({ path: `~${row.path}`, value: { ...blank, ...standing(row), ...change } }, commit)
  }
  function tick(row: Row) {
    if (row.setting === 'preset') {
      session.edit({ path: `~${row.path}`, value: row.done || row.word === 'user' ? null : row.word }, true)
      return
    }
    put(row, row.done ? { set: false } : { value: row.setTo ?? 0, set: true, date: today() }, true)
  }
  const kinds = { V: 'voltage', A: 'current', Ah: 'charge', fraction: 'share' } as const
  function measure(row: Row) {
    return (typed: string) => {
      if (typed.trim() === '') {
        put(row, { seen: null }, false)
        return {}
      }
      const parsed = parse(typed, kinds[row.unit as keyof typeof kinds] ?? 'number', 'metric')
      if ('reason' in parsed) return { reason: parsed.reason }
      put(row, { seen: parsed.value, date: today() }, false)
      return {}
    }
  }
  const metered = (row: Row) =>
    [
      'absorbV',
      'floatV',
      'equaliseV',
      'amps',
      'chargedV',
      'cutOffV',
      'alarmV',
      'restartV',
      'compensationMvPerK',
    ].includes(row.setting)
  const on = (row: Row) => bench.setting === `${card.device} ${row.setting}`
</script>

{#if card}
  <section class="card" aria-label="Settings card" data-card={card.device}>
    <h3>Settings card: {card.name}{source?.givesA ? `, ${num(source.givesA)} A` : ''}</h3>
    <table>
      <thead>
        <tr>
          <th scope="col">in its order</th>
          <th scope="col" class="n">found</th>
          <th scope="col" class="n">set to</th>
          <th scope="col">set</th>
          <th scope="col">meter</th>
        </tr>
      </thead>
      <tbody>
        {#each card.rows as row (row.setting)}
          <tr class={[on(row) && 'on']} data-setting={row.setting}>
            <th scope="row">
              <button type="button" class="pick" onclick={() => bench.pickCard(card.device, row.setting)}
                >{row.label}</button
              >
            </th>
            <td class={['n fig found', row.must && 'struck']}
              >{row.foundWord ??
                (row.found === null
                  ? '–'
                  : row.setting === 'equaliseV' && row.found === 0
                    ? 'off'
                    : short(row.found, row.unit))}</td
            >
            <td class="n"
              ><span class="fig">{row.word ?? (row.setTo === null ? '–' : short(row.setTo, row.unit))}</span
              >{#if row.word === null && row.unit && row.unit !== 'fraction'}<span class="unit">{' ' + row.unit}</span
                >{/if}</td
            >
            <td>
              <input
                type="checkbox"
                class="checkbox checkbox-xs"
                checked={row.done}
                aria-label="{card.name}, {row.label}: put in{row.date ? `, ${row.date}` : ''}"
                title={row.done && row.date ? row.date : undefined}
                onchange={() => tick(row)}
              />
            </td>
            <td class={['meter', row.agrees === false && 'off']}>
              {#if metered(row)}
                <TypedField
                  label="{row.label}, on the meter"
                  hideLabel
                  text={row.seen === null ? '' : fieldText(row.seen, 'number', 'metric').trim()}
                  read={measure(row)}
                  width="46px"
                  path={`${row.path}/seen`}
                  snapshot={() => [
                    {
                      path: `${session.base}${row.path.replace('/-', `/${session.bank!.cards.length}`)}`,
                      value: standing(row),
                    },
                  ]}
                />
              {/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if card.rows.some((r) => r.agrees === false)}<p class="note">
        The meter disagrees: look at the cable, the joints, and where it was measured.
      </p>{/if}
    {#if card.nearest}<p class="note">{card.nearest}</p>{/if}
    <p class="others">
      {#each others as c (c.device)}<button type="button" class="link-copper" onclick={() => bench.pickCard(c.device)}
          >{c.name}</button
        >{/each}
      <a class="link-copper" href="#/d/{session.id}/summary">printed</a>
    </p>
    <p class="caution">Typical values: the maker’s sheets of cells and devices come first.</p>
  </section>
{/if}

<style>
  .card {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
    margin-top: 8px;
  }
  h3 {
    font-weight: 700;
    font-size: 13.5px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    margin-top: 3px;
  }
  thead th {
    font-weight: 400;
    font-size: 11.5px;
    color: var(--ink-2);
    text-align: left;
  }
  tbody tr {
    border-top: 1px solid var(--grid);
    height: 25px;
  }
  th {
    text-align: left;
    font-weight: 400;
  }
  .n {
    text-align: right;
    white-space: nowrap;
    padding-right: 5px;
  }
  .pick {
    cursor: pointer;
    min-height: 24px;
    text-align: left;
  }
  .found {
    color: var(--ink-2);
    font-weight: 500;
  }
  .struck {
    text-decoration: line-through;
  }
  .unit {
    font-size: 11.5px;
  }
  .on {
    background: var(--tint);
    outline: 1px solid var(--copper);
  }
  .off :global(input) {
    background: var(--ink);
    color: var(--sheet);
  }
  .meter {
    width: 48px;
  }
  .others {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 9px;
    margin-top: 4px;
  }
  .others > * {
    min-height: 24px;
    font-size: 12.5px;
  }
  @media (max-width: 939px) {
    tbody tr {
      height: 48px;
    }
    .pick,
    .others > * {
      min-height: 44px;
    }
    .card :global(.checkbox) {
      width: 28px;
      height: 28px;
    }
  }
</style>
