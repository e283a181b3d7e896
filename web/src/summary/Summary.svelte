<script lang="ts">
  import { pretty } from '../ui/houseRules'
  import { api } from '../api/client'
  import type { Schedules } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num, say, sayVolts, sizeName } from '../ui/quantity'
  import OneLine from './OneLine.svelte'
  import SummaryCards from './SummaryCards.svelte'
  import { perRun } from './rows'

  /** The design on one page, to print and to sign: figures, wiring, lists, cautions, the tables used. */
  let lists = $state.raw<Schedules | null>(null)
  let told = $state('')
  $effect(() => {
    if (!session.evaluation || !session.worked) return
    api.schedules(session.worked, session.bankIndex).then(
      (answer) => (lists = answer),
      (e) => (told = e instanceof Error ? e.message : 'The server does not answer.'),
    )
  })
  let trouble = $state('')
  async function everything() {
    trouble = ''
    try {
      // The server packs what it keeps.
      await session.commit()
      await api.save(`/api/designs/${session.id}/sheets.zip`)
    } catch (e) {
      trouble = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }
  const MOST_RUNS = 15
  const e = $derived(session.result!)
  const d = $derived(session.design!)
  const r = $derived(e.mainRun)
  const bank = $derived(e.bank)
  const p = $derived(e.protection)
  const n = $derived(e.network)
  const i = $derived(e.inverter)
  const cables = $derived(lists ? perRun(lists.cables) : [])
  const here = $derived(session.evaluation!.findings.filter((f) => f.bank === e.id && f.grade !== 'note'))
  const wrong = $derived(here.filter((f) => f.grade === 'danger' || f.grade === 'fault'))
  const look = $derived(here.filter((f) => f.grade === 'caution'))
  const mostFuses = $derived(Math.min(MOST_RUNS, lists?.fuses.length ?? 0))
  /** What fits between the margins of a sheet [px]; rows of cables give way until all of it does. */
  const SHEET = 1036
  const LEAST_CABLES = 4
  let given = $state(0)
  const mostCables = $derived(Math.max(LEAST_CABLES, MOST_RUNS - given))
  let page = $state<HTMLElement>()
  let foot = $state<HTMLElement>()
  $effect(() => {
    void cables
    given = 0
  })
  $effect(() => {
    if (!page || !foot || cables.length === 0 || mostCables === LEAST_CABLES) return
    const tall =
      foot.getBoundingClientRect().bottom -
      page.getBoundingClientRect().top -
      parseFloat(getComputedStyle(page).paddingTop)
    // Rows that are not there cannot give way: straight to those that are.
    if (tall > SHEET) given = Math.max(given + 1, MOST_RUNS - cables.length + 1)
  })
  const rules = $derived(new Map(session.reference!.houseRules.map((rule) => [rule.id, rule])))
  const own = $derived(
    Object.entries(d.houseRules.own).map(
      ([id, value]) =>
        `${rules.get(id)?.label ?? id}: ${rules.has(id) ? pretty(rules.get(id)!, String(value)) : String(value)}`,
    ),
  )
  const metres = (m: number) => say(m, 'm', session.units)
  const metresOf = (c: Schedules['cables'][number]) => `${c.pieces > 1 ? `${c.pieces} × ` : ''}${metres(c.lengthM)}`
  const today = new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })

  /** Label and figure, in the order of the work; what is not worked out is left away. */
  const figures = $derived(
    (
      [
        ['taken a day', e.energy && say(e.energy.energyBankWh, 'Wh')],
        ['runs at once', e.loads && say(e.loads.peakAcW, 'W')],
        ['worst start', e.loads && e.loads.surgeDemandW > e.loads.peakAcW ? say(e.loads.surgeDemandW, 'W') : null],
        ['system', e.voltage && `${e.voltage.systemV} V (${num(e.voltage.nominalV, 1)})`],
        ['at full load', e.currents && say(e.currents.bankWorstA, 'A')],
        ['inverter', i?.item ? `${num(i.item.continuousW * i.stack)} W` : 'none'],
        ['bank', bank && `${bank.layout.series}S${bank.layout.parallel}P, ${num(bank.holds.ah)} Ah`],
        ['usable', bank && say(bank.holds.usableWh, 'Wh')],
        ['lasts', bank?.lasts.hoursAtMean ? say(bank.lasts.hoursAtMean, 'h') : null],
        ['worst string', n && n.strings.shares.length > 1 ? say(n.strings.worstShare, 'fraction') : null],
        ['main cable', r?.cable.size ? sizeName(r.cable.size, r.cable.conductors) : null],
        ['main fuse', r?.fuse.ratingA ? say(r.fuse.ratingA, 'rating') : 'none'],
        ['lost on the way', r?.drop.fraction ? say(r.drop.fraction, 'fraction') : null],
        ['at the end, worst', r?.drop.endV ? say(r.drop.endV, 'V') : null],
        ['short circuit', p && say(p.short.amps, 'A')],
        ['fuse breaks', p && say(p.interruptA, 'A')],
      ] as [string, string | null | undefined | false][]
    ).filter((f): f is [string, string] => typeof f[1] === 'string'),
  )
</script>

<svelte:head><title>{session.evaluation!.name}, one page</title></svelte:head>
<div class="desk" data-theme="badger-day">
  <nav class="bar" aria-label="The one page">
    <a class="link-copper" href="#/d/{session.id}/cables">Back to cables and fuses</a>
    <span class="acts">
      <button type="button" class="link-copper" data-testid="zip" onclick={() => void everything()}
        >Everything as a zip: parts, cuts, fuses, settings, labels, words, netlist</button
      >
      <button type="button" class="btn btn-primary btn-sm" onclick={() => window.print()}>Print</button>
    </span>
    {#if trouble}<p role="alert">{trouble}</p>{/if}
  </nav>
  <main
    class="page"
    bind:this={page}
    data-testid="summary"
    data-ready={lists !== null && cables.length > 0 ? 'yes' : 'no'}
  >
    <header>
      <h1>{session.evaluation!.name}</h1>
      <span>{d.banks.length > 1 ? `${e.name}, ` : ''}{today}</span>
    </header>
    {#if !r}
      <p>{e.because.mainRun ?? 'Cable and fuse follow from the loads'}.</p>
    {:else}
      <dl>
        {#each figures as [label, text] (label)}<div>
            <dt>{label}</dt>
            <dd class="fig">{text}</dd>
          </div>{/each}
      </dl>
      {#if e.chain}<p>{e.chain.sentence}.</p>{/if}
      <h2>Wiring, one line for both poles; dashed: behind a panel or a converter</h2>
      <OneLine />
      {#if lists}
        {#if e.charging && e.charging.cards.length > 0}<SummaryCards charging={e.charging} />{/if}
        <h2>Fuses</h2>
        <table>
          <thead
            ><tr
              ><th>fuse</th><th>class</th><th>rating</th><th>volts</th><th>breaks</th><th>a short there</th><th
                >from its source</th
              ><th>protects</th></tr
            ></thead
          >
          <tbody
            >{#each lists.fuses.slice(0, mostFuses) as f, k (k)}<tr
                ><th>{f.count > 1 ? `${f.count} × ` : ''}{f.name}</th><td>{f.class}</td><td class="fig"
                  >{f.ratingA === null ? 'none made' : say(f.ratingA, 'rating')}</td
                ><td class="fig">{sayVolts(f.maxDcV)} on {sayVolts(f.greatestV)}</td><td class="fig"
                  >{say(f.interruptA, 'A')}</td
                ><td class="fig"
                  >{f.shortCircuitA === null ? 'limited' : say(f.shortCircuitA, 'A')}{f.reliesOn ? ' *' : ''}</td
                ><td class="fig">{f.distanceM === null ? '' : metres(f.distanceM)}</td><td>{f.protects}</td></tr
              >{/each}</tbody
          >
        </table>
        {#if lists.fuses.some((f) => f.reliesOn)}<p class="small">
            * relies on {lists.fuses.find((f) => f.reliesOn)!.reliesOn}, of a current-limiting class.
          </p>{/if}
        <h2>Cables</h2>
        <table>
          <thead
            ><tr
              ><th>label</th><th>from</th><th>to</th><th>size</th><th>pieces and lengths, red</th><th>black</th><th
                >lugs</th
              ></tr
            ></thead
          >
          <tbody
            >{#each cables.slice(0, mostCables) as c (c.label)}<tr
                ><th>{c.label}</th><td>{c.from}</td><td>{c.to}</td><td class="fig">{c.size}</td><td class="fig"
                  >{c.plus.map(metresOf).join(' · ')}</td
                ><td class="fig">{c.minus.map(metresOf).join(' · ')}</td><td>{c.lug}</td></tr
              >{/each}</tbody
          >
        </table>
        {#if cables.length > mostCables || lists.fuses.length > mostFuses}<p class="small">
            Further runs are in the fuse schedule and the cut list.
          </p>{/if}
        <p class="small">
          <b>Besides:</b>
          {#each lists.parts.slice(0, 8) as p, k (p.name)}{k > 0 ? '; ' : ''}{p.count > 1
              ? `${p.count} × `
              : ''}{p.name}, {p.least}{/each}.
        </p>
      {:else}<p role="status">{told || 'Writing the lists…'}</p>{/if}
      <h2>
        {wrong.length + look.length === 0 ? 'Nothing found wrong' : `${wrong.length} wrong, ${look.length} to look at`}
      </h2>
      <ul class="found">
        {#each [...wrong, ...look] as f (f.rule + f.place)}<li>
            <b>{f.grade === 'caution' ? 'to look at' : f.grade}</b>
            {f.title}
          </li>{/each}
      </ul>
      <p class="small">
        Tables used, typical values: ampacity {r.laid.practice.replace(/-/g, ' ')} °C at {say(r.laid.ambientC, '°C')};
        fuse classes with their volts and interrupt ratings; copper at 20 °C; opening times. House rules: {d.houseRules
          .set}{own.length > 0 ? `; own: ${own.slice(0, 6).join('; ')}` : ''}.
      </p>
      <p class="small">
        <b>Caution.</b> A bank cannot be switched off: isolate every source and prove it dead before touching, take rings
        and tools away from the posts. This sheet is worked out from what was typed in; the rules where the system will be
        used, the makers’ instructions and a qualified person come first.
      </p>
      <p class="sign" bind:this={foot}><span>Checked by</span><span>Licence</span><span>Date</span></p>
    {/if}
  </main>
</div>

<style>
  .desk {
    background: #e7eced;
    min-height: 100dvh;
    padding: 12px;
    overflow-x: auto;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 4px 16px;
    justify-content: flex-end;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    align-items: center;
    width: 760px;
    max-width: 100%;
    margin: 0 auto 10px;
  }
  .page {
    width: 760px;
    min-height: 1075px;
    margin: 0 auto;
    padding: 18px 21px;
    background: #fff;
    color: #000;
    font-size: 11px;
    line-height: 1.25;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    border-bottom: 2px solid #000;
    padding-bottom: 3px;
  }
  h1 {
    font-size: 19px;
    font-weight: 700;
  }
  h2 {
    font-size: 12px;
    font-weight: 700;
    margin: 7px 0 2px;
    border-bottom: 1px solid #999;
  }
  dl {
    display: grid;
    grid-template-columns: repeat(8, 1fr);
    gap: 3px 8px;
    margin: 6px 0 4px;
  }
  dt {
    color: #333;
    font-size: 11px;
  }
  dd {
    font-size: 14px;
    line-height: 1.15;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 11px;
  }
  th {
    text-align: left;
    font-weight: 600;
  }
  thead th {
    color: #333;
    font-weight: 400;
  }
  td,
  th {
    padding: 0.5px 8px 0.5px 0;
    border-bottom: 0.5px solid #ccc;
    vertical-align: baseline;
  }
  td.fig {
    font-size: 12px;
  }
  .found {
    columns: 2;
    column-gap: 20px;
  }
  .small {
    margin-top: 4px;
  }
  .sign {
    display: grid;
    grid-template-columns: 2fr 1.4fr 1fr;
    gap: 16px;
    margin-top: 26px;
  }
  .sign span {
    border-top: 1px solid #000;
    padding-top: 2px;
  }
  @page {
    size: A4;
    margin: 10mm;
  }
  @media print {
    .bar {
      display: none;
    }
    .desk {
      padding: 0;
      background: #fff;
      min-height: 0;
    }
    .page {
      width: 100%;
      min-height: 0;
      padding: 0;
    }
  }
</style>
