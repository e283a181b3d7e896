<script lang="ts">
  import { untrack } from 'svelte'
  import { session } from '../app/session.svelte'
  import { undoKeys } from '../app/undoKeys'
  import TitleLine from '../app/TitleLine.svelte'
  import { keeper } from '../app/keeper.svelte'
  import Conflict from '../app/Conflict.svelte'
  import { tinykeys } from 'tinykeys'
  import Mark from '../ui/Mark.svelte'
  import { answer, known, num, parse } from '../ui/quantity'
  import QuantityField from '../ui/QuantityField.svelte'
  import TypedField from '../ui/TypedField.svelte'
  import Views from '../ui/Views.svelte'
  import { builds, letter, looks } from './bench.svelte'
  import BuildColumn from './BuildColumn.svelte'
  import BuildList from './BuildList.svelte'
  import FrontView from './FrontView.svelte'
  import LessView from './LessView.svelte'
  import NumberLines from './NumberLines.svelte'
  import { plans } from './plans.svelte'
  import PricesView from './PricesView.svelte'
  import StagesView from './StagesView.svelte'
  import Turns from './Turns.svelte'
  import UseView from './UseView.svelte'

  /** The same job built in other ways: side by side with everything each needs, in plain words, and where it turns. */
  const PAUSE_MS = 250
  // Another design, or another bank, begins anew; any change of the design searches anew.
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => builds.reset())
  })
  $effect(() => {
    if (!session.evaluation) return
    void session.bankIndex
    const timer = setTimeout(() => void builds.search(), PAUSE_MS)
    return () => clearTimeout(timer)
  })
  $effect(() => {
    return tinykeys(window, undoKeys())
  })

  const c = $derived(builds.comparison)
  const list = $derived(c?.builds ?? [])
  const currency = $derived(session.design!.display.currency)
  const money = (value: number, decimals = 0) => `${currency}${num(value, decimals)}`
  const most = $derived(Math.max(1, ...list.map((b) => b.bill.total)))
  let wide = $state(900)
  const TALL = 96
  /** One scale for all: the longest and the tallest still fit their columns. */
  const pxPerMm = $derived(
    Math.min(
      ...list.map((b) =>
        b.layout
          ? Math.min(
              (TALL - 6) / b.layout.heightMm,
              ((wide < 560 ? wide : wide / Math.max(1, list.length)) - 74) / b.layout.lengthMm,
            )
          : 1,
      ),
      0.4,
    ),
  )
  const space = $derived(session.bank!.space)
  const sides = ['lengthMm', 'widthMm', 'heightMm'] as const
  const words = { lengthMm: 'long', widthMm: 'deep', heightMm: 'high' }
  function readSide(side: (typeof sides)[number], typed: string) {
    if (typed.trim() === '') {
      session.edit({ path: '~/space', value: null })
      return {}
    }
    const fits = (mm: number) => mm >= 1 && mm <= 5000
    const parsed = parse(typed.replace(/\s*mm\s*$/i, ''), 'number', 'metric', fits)
    if ('value' in parsed && !fits(parsed.value)) return { reason: 'must be 1 to 5,000 mm' }
    return answer(
      parsed,
      (mm) => `${num(mm)} mm`,
      (mm) =>
        session.edit({
          path: '~/space',
          value: { lengthMm: 5000, widthMm: 5000, heightMm: 5000, ...(space ?? {}), [side]: mm },
        }),
    )
  }
  const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
  /** What is looked at is what the sentence is about. */
  const headline = $derived(
    (builds.look === 'stages' ? plans.plan?.sentence : null) ??
      (builds.look === 'front' ? plans.says : null) ??
      (builds.look === 'use' ? c?.use?.sentence : null) ??
      (builds.look === 'less' && plans.less
        ? plans.less.ways[0]
          ? capital(`${plans.less.ways[0].givesUp.join(' and ')}: ${plans.less.smaller} would be enough`)
          : plans.less.not
        : null) ??
      (builds.look === 'prices' ? c?.underSets.find((s) => s.inUse)?.sentence : null) ??
      c?.verdict[0] ??
      session.evaluation?.firstToDo ??
      'Working out what could be built',
  )
  const open = $derived(list.find((b) => b.key === builds.bill) ?? null)
</script>

<div class="bench">
  <TitleLine />
  <main class="sheet">
    <div class="instrument">
      <h1 class="headline" data-testid="headline">{headline}</h1>
      <Views
        below
        name="How builds are looked at"
        views={looks}
        value={builds.look}
        onpick={(look) => (builds.look = look)}
      />
      <p class="note" role="status" data-testid="progress">
        {#if builds.running && builds.screening}{builds.worked > 0
            ? `${num(builds.worked)} of ${num(builds.screening.of)} worked out`
            : `${num(builds.screening.of)} to work out`}, of {num(builds.screening.candidates)} candidates.
          <button type="button" class="link-copper min-h-6" onclick={() => builds.stop()}>Stop</button>
        {:else if builds.screening}{num(builds.worked)} builds worked out whole, of {num(builds.screening.candidates)} candidates;
          each with everything it needs.
        {:else if builds.told}{builds.told}{/if}
      </p>
      <div class="controls">
        <QuantityField
          label="cycles a year"
          kind="number"
          path="/cyclesPerYear"
          advised={c?.cyclesPerYear ?? null}
          whole
          width="70px"
        />
        <QuantityField label="years" kind="number" path="/years" advised={c?.years ?? null} whole width="60px" />
        <QuantityField
          label="an hour’s work"
          kind="number"
          path="/prices/hourRate"
          advised={c?.hourRate ?? null}
          whole
          width="76px"
        />
        {#each sides as side (side)}
          <TypedField
            label="space, {words[side]}, mm"
            text={space ? String(space[side]) : ''}
            placeholder="any"
            read={(typed) => readSide(side, typed)}
            snapshot={() => [{ path: `${session.base}/space`, value: space ?? null }]}
            width="78px"
            path="/space/{side}"
          />
        {/each}
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={builds.sameLine} data-testid="same-line" /> same
          product line only</label
        >
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={builds.even} data-testid="even" /> count the
          energy asked alone</label
        >
      </div>
      {#if builds.look === 'front' && (list.length > 0 || builds.found.length > 0)}<FrontView
          {money}
        />{:else if builds.look === 'stages'}<StagesView {money} />{:else if builds.look === 'use'}<UseView
          {money}
        />{:else if builds.look === 'less'}<LessView {money} />{:else if builds.look === 'prices'}<PricesView
          {money}
        />{:else if list.length > 0}
        <div class="columns" bind:clientWidth={wide} style:--n={list.length}>
          {#each list as build, i (build.key + i)}
            <BuildColumn {build} index={i} {pxPerMm} tall={TALL} {most} {money} />
          {/each}
        </div>
        <p class="legend caption">
          <span class="sw units"></span> units <span class="sw balancers"></span> balancers, BMS
          <span class="sw copper"></span>
          links, copper, fuses, switch
          <span class="sw inverter"></span> inverter, converter <span class="sw box"></span> monitor, box
          <span class="sw hours"></span>
          hours. From the front, to one scale; round: the main cable cut across, larger.
          <b class="ml-2">Right is better on every line.</b>
        </p>
        {#if open}
          <section class="bill" data-testid="bill">
            <h3 class="font-bold text-[13.5px]">
              The whole bill of {letter(list.indexOf(open))}, {open.name}, prices of {session.design!.prices.date ??
                'the catalogue'}
            </h3>
            <table class="table table-xs">
              <tbody
                >{#each open.bill.lines as line, i (i)}<tr
                    ><th scope="row">{line.what}</th><td class="fig"
                      >{num(line.count, line.count % 1 ? 2 : 0)} × {known(line.each, (v) =>
                        money(v, v % 1 ? 2 : 0),
                      )}</td
                    ><td class="fig text-right">{line.price === null ? '' : money(line.price, 2)}</td></tr
                  >{/each}<tr
                  ><th scope="row"
                    >together{open.bill.unknown.length > 0
                      ? `, without ${open.bill.unknown.join(', ')}: its price is not known`
                      : ''}</th
                  ><td></td><td class="fig text-right">{money(open.bill.total, 2)}</td></tr
                ></tbody
              >
            </table>
          </section>
        {/if}
        <NumberLines {list} {money} />
      {:else}
        <p class="note mt-3">{session.result?.because.bank ?? session.evaluation?.firstToDo ?? ''}</p>
      {/if}
      {#if builds.look === 'beside'}<BuildList {money} />{/if}
      <p class="caution">
        Prices are samples with a date, of an unnamed currency: put your own in. A comparison is no data sheet; limits,
        wiring and warranty of the units you buy come first.
      </p>
    </div>
    <div class="notes">
      {#if c}
        <section aria-label="Verdict" data-testid="verdict">
          <h2 class="font-bold text-[13.5px]">What speaks for which</h2>
          {#each c.verdict as sentence, i (i)}<p class="note mt-1.5">{sentence}.</p>{/each}
          {#if c.beside}<p class="note mt-1.5" data-testid="other-banks">{c.beside}.</p>{/if}
        </section>
        {#if list.some((b) => b.toLookAt > 0)}
          <p class="note mt-2 flex items-baseline gap-1.5">
            <Mark kind="look" />
            {list
              .map((b, i) => (b.toLookAt > 0 ? `${letter(i)}: ${b.toLookAt} to look at` : ''))
              .filter(Boolean)
              .join(', ')}
          </p>
        {/if}
        {#if list.length > 1}<Turns {money} />{/if}
      {/if}
    </div>
  </main>
</div>
{#if keeper.conflict}<Conflict />{/if}

<style>
  .bench {
    display: grid;
    grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
    height: 100dvh;
    padding-bottom: 12px;
  }
  .sheet {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 292px;
    margin: 4px 16px 0;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    min-height: 0;
  }
  .instrument {
    position: relative;
    padding: 12px 16px;
    overflow: auto;
    min-height: 0;
  }
  .notes {
    position: relative;
    padding: 14px;
    border-left: 1px solid var(--hair);
    overflow: auto;
  }
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 5px 10px;
    align-items: flex-end;
    margin: 4px 0 8px;
  }
  .tick {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    font-size: 12.5px;
    min-height: 26px;
  }
  .columns {
    display: grid;
    grid-template-columns: repeat(var(--n), minmax(0, 1fr));
  }
  .legend {
    margin: 6px 0;
  }
  .sw {
    display: inline-block;
    width: 10px;
    height: 10px;
    border: 1px solid var(--ink);
    margin-left: 8px;
  }
  .sw.units {
    background: var(--hair);
    margin-left: 0;
  }
  .sw.balancers {
    background: var(--ink-2);
  }
  .sw.copper {
    background: var(--copper);
  }
  .sw.inverter {
    background: var(--page);
  }
  .sw.hours {
    background: repeating-linear-gradient(0deg, var(--ink-2) 0 1px, var(--sheet) 1px 4px);
  }
  .bill {
    border: 1px solid var(--ink);
    padding: 8px 10px;
    margin-bottom: 8px;
    max-width: 560px;
  }
  .bill .table th,
  .bill .table td {
    font-size: 12.5px;
    padding: 1px 6px;
  }
  @media (max-width: 939px) {
    .bench {
      display: block;
      height: auto;
    }
    .sheet {
      grid-template-columns: minmax(0, 1fr);
      margin: 0;
      border-inline: 0;
    }
    .instrument {
      padding: 12px;
      overflow: visible;
    }
    .notes {
      border-left: 0;
      border-top: 1px solid var(--hair);
    }
    /* One build after the other. */
    .columns {
      grid-template-columns: minmax(0, 1fr);
      gap: 14px;
    }
    .tick {
      min-height: 44px;
    }
  }
</style>
