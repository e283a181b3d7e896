<script lang="ts">
  import { untrack } from 'svelte'
  import { session } from '../../app/session.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import { answer as answered, fieldText, num, parse, say, stringName } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import Grown from './Grown.svelte'
  import LoadRange from './LoadRange.svelte'
  import JoiningView from './JoiningView.svelte'
  import { rundown } from './rundown.svelte'
  import RunDownAh from './RunDownAh.svelte'
  import RunDownAmps from './RunDownAmps.svelte'
  import UnitsAsTheyAre from './UnitsAsTheyAre.svelte'

  /** The bank under one load until it is dark: who gives what, who opens when and why, and what never comes out. */
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => rundown.reset())
  })
  $effect(() => {
    if (session.evaluation) void rundown.ask()
  })

  const run = $derived(rundown.answer?.run ?? null)
  const others = $derived(rundown.others)
  const volts = $derived(session.result!.bank!.holds.nominalV)
  const full = $derived(session.result?.currents?.bankWorstA ?? 0)
  const watts = $derived(run?.loadW ?? (run?.loadA ?? 0) * volts)
  const most = $derived(Math.max(100, Math.ceil((Math.max(full, 10) * volts * 1.25) / 100) * 100))
  const longest = $derived(Math.max(1, ...others.map((o) => o.darkH), run?.darkH ?? 0))
  const why: Record<string, string> = { empty: 'is empty', voltage: 'falls to its cut-off', current: 'over its limit' }

  function read(kind: 'power' | 'current') {
    return (typed: string) => {
      if (typed.trim() === '') {
        rundown.put({})
        return {}
      }
      const fits = (v: number) => v > 0 && v <= (kind === 'power' ? 1e6 : 1e5)
      const parsed = parse(typed, kind, 'metric', fits)
      if ('value' in parsed && !fits(parsed.value)) return { reason: 'must be more than 0' }
      return answered(
        parsed,
        (v) => fieldText(v, kind, 'metric'),
        (v) => rundown.put(kind === 'power' ? { watts: v } : { amps: v }),
      )
    }
  }
  const table = $derived.by(() => {
    if (!run) return []
    const every = Math.max(1, Math.floor(run.hours.length / 24))
    return run.hours.flatMap((h, i) =>
      i % every === 0 || i === run.hours.length - 1
        ? [
            [
              say(h, 'h'),
              ...run.ampsByString.map((a) => say(a[i], 'A')),
              ...run.ahByUnit.flat().map((a) => num(a[i], 1)),
            ],
          ]
        : [],
    )
  })
  const names = $derived(
    run ? run.ahByUnit.flatMap((units, s) => units.map((_, u) => `${stringName(s + 1)}${u + 1}`)) : [],
  )
</script>

{#snippet figure(key: typeof rundown.about, text: string, big: boolean)}
  <button
    type="button"
    class={['fig figure', big && 'big', session.presented?.pointer === `/rundown/${key}` && 'open']}
    aria-pressed={session.presented?.pointer === `/rundown/${key}`}
    onclick={() => rundown.show(key)}>{text}</button
  >
{/snippet}
<div class="load">
  <LoadRange
    value={Math.round(watts)}
    min={10}
    max={most}
    step={10}
    testid="rundown-load"
    onput={(w) => rundown.put({ watts: w })}
  />
  <TypedField
    label="watts"
    text={run?.loadW ? fieldText(Math.round(run.loadW), 'power', 'metric') : ''}
    placeholder={`${num(watts)} W`}
    read={read('power')}
    width="86px"
    path="/rundown/watts"
    snapshot={() => []}
  />
  <TypedField
    label="or amperes"
    text={run?.loadA ? fieldText(Number(run.loadA.toFixed(1)), 'current', 'metric') : ''}
    placeholder={`${num(watts / volts, 1)} A`}
    read={read('current')}
    width="80px"
    path="/rundown/amps"
    snapshot={() => []}
  />
  {#if run}
    <dl>
      <div data-testid="delivers">
        <dt class="caption">delivers</dt>
        <dd>{@render figure('deliveredWh', say(run.deliveredWh, 'Wh'), true)}</dd>
      </div>
      <div>
        <dt class="caption">of what is in it</dt>
        <dd class="fig">{say(run.heldWh, 'Wh')}</dd>
      </div>
      <div data-testid="stranded">
        <dt class="caption">stays stranded</dt>
        <dd>{@render figure('strandedWh', say(run.strandedWh, 'Wh'), false)}</dd>
      </div>
      <div data-testid="dark-at">
        <dt class="caption">dark at</dt>
        <dd>{@render figure('darkH', say(run.darkH, 'h'), false)}</dd>
      </div>
    </dl>
  {/if}
</div>
{#if run}
  <div class={['drawings', (session.result?.bank?.layout.parallel ?? 1) > 1 && 'two']}>
    <div>
      <RunDownAmps {run} />
      <RunDownAh {run} />
    </div>
    <JoiningView />
  </div>
  <div class="foot">
    <div>
      <h3>Who opens</h3>
      <ul data-testid="drops">
        {#each run.drops as d, i (i)}
          <li>
            <b class="fig">{say(d.hours, 'h')}</b> string {stringName(d.string)}{d.unit === null
              ? ` at ${say(Math.abs(d.amps), 'A')}, ${why[d.reason]}`
              : `: ${stringName(d.string)}${d.unit} ${why[d.reason]}`}
          </li>
        {:else}<li>no voltage gives this load</li>{/each}
        {#if run.endedBy === 'inverter-cut-off'}<li>the inverter cuts off</li>{/if}
      </ul>
    </div>
    <div>
      <h3>Hours until dark</h3>
      {#each others.toSorted((a, b) => a.loadW - b.loadW) as o (o.loadW)}
        <p class="other">
          <button type="button" class="link-copper" onclick={() => rundown.put({ watts: o.loadW })}
            >{say(o.loadW, 'W')}</button
          >
          <span class="bar" style:width="{(o.darkH / longest) * 120}px"></span>
          <span class="fig">{say(o.darkH, 'h')}</span>
          {#if o.jointA !== null}<span class="caption">{say(o.jointA, 'A')} in the joint</span>{/if}
        </p>
      {/each}
    </div>
    {#if run.worstJoint}
      <p class="note" data-testid="hot-joint">
        The bad {run.worstJoint.where} carries up to
        <b class="fig">{say(run.worstJoint.amps, 'A')}</b>:
        <b class="fig">{say(run.worstJoint.heatW, 'W')}</b> of heat in one lug.
      </p>
    {/if}
  </div>
  <UnitsAsTheyAre />
  <Grown />
  <AsTable
    heads={['at', ...run.ampsByString.map((_, s) => `string ${stringName(s + 1)}`), ...names.map((n) => `${n}, Ah`)]}
    rows={[]}
    plain={table}
  />
  <p class="caution">
    Worked out from rest volts and resistances: a real bank differs. Stop well before cells are empty, and never run
    lithium past where its BMS opens. Join strings only at equal rest voltage.
  </p>
{:else}
  <p class="note mt-2">Nothing to run down yet.</p>
{/if}

<style>
  .load {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 4px 12px;
    margin-top: 4px;
  }
  .drawings > div {
    min-width: 0;
  }
  @media (min-width: 1150px) {
    .two {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 300px;
      gap: 14px;
    }
  }
  dl {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    align-items: flex-end;
  }
  dd {
    font-size: 17px;
    line-height: 1.2;
  }
  .big {
    font-size: 23px;
  }
  .figure {
    min-height: 24px;
    border: 1px solid transparent;
    cursor: pointer;
  }
  .figure:hover {
    text-decoration: underline dotted;
  }
  .open {
    border-color: var(--copper);
  }
  .foot {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 4px 20px;
    font-size: 12.5px;
  }
  h3 {
    font-weight: 700;
    font-size: 13px;
  }
  .other {
    display: flex;
    gap: 8px;
    align-items: center;
  }
  .other button {
    min-width: 62px;
    min-height: 24px;
    text-align: right;
  }
  .bar {
    height: 8px;
    background: var(--ink-2);
  }
  @media (max-width: 939px) {
    .other button {
      min-height: 44px;
    }
  }
</style>
