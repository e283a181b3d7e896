<script lang="ts">
  import { session } from '../app/session.svelte'
  import Mark from '../ui/Mark.svelte'
  import { known, num, parse, plainNumber, say } from '../ui/quantity'
  import type { Kind } from '../ui/quantity'
  import TypedField from '../ui/TypedField.svelte'
  import { builds, letter } from './bench.svelte'
  import { plans } from './plans.svelte'

  /** Buy now, add later: what the first stage does alone, what must be big enough from the first day, and how it grows. */
  let { money }: { money: (value: number, decimals?: number) => string } = $props()
  $effect(() => {
    void session.evaluation
    void builds.subject
    void builds.comparison
    plans.askStages()
  })
  const p = $derived(plans.plan)
  const g = $derived(plans.growth)
  const list = $derived(builds.comparison?.builds ?? [])
  function field(kind: Kind, fits: (v: number) => boolean, reason: string, put: (v: number) => void) {
    return (typed: string) => {
      if (typed.trim() === '') return {}
      const read = parse(typed, kind, 'metric', fits)
      if ('reason' in read) return { reason: read.reason }
      if (!fits(read.value)) return { reason }
      put(read.value)
      return {}
    }
  }
  const later = (typed: string) => {
    if (typed.trim() === '') {
      plans.try({ priceLater: null })
      return {}
    }
    return field(
      'number',
      (v) => v >= 0 && v <= 1e6,
      'must be 0 to 1,000,000',
      (v) => plans.try({ priceLater: v }),
    )(typed)
  }
  /** Money now and later on one scale. */
  const scale = $derived(Math.max(1, p?.money?.atOnceValue ?? 0, p?.money?.stagedValue ?? 0))
</script>

<div class="controls">
  <label
    ><span class="caption">which build</span><select
      class="select select-xs"
      value={builds.subject}
      onchange={(e) => {
        builds.subject = e.currentTarget.value
        void builds.compare()
      }}
    >
      {#each list as b, i (b.key)}<option value={builds.keys[i] ?? b.key}>{letter(i)}: {b.name}</option>{/each}
    </select></label
  >
  {#if p && p.strings > 1}
    <label
      ><span class="caption">strings now: {p.stringsNow} of {p.strings}</span><input
        type="range"
        min="1"
        max={p.strings - 1}
        value={p.stringsNow}
        data-testid="strings-now"
        oninput={(e) => plans.try({ stringsNow: Number(e.currentTarget.value) })}
      /></label
    >
    <TypedField
      label="the rest after, years"
      text={plainNumber(plans.stages.yearsLater)}
      read={field(
        'number',
        (v) => v > 0 && v <= 20,
        'must be more than 0, up to 20',
        (v) => plans.try({ yearsLater: v }),
      )}
      snapshot={() => []}
      width="64px"
      path="/stages/years"
    />
    <TypedField
      label="a unit then"
      text={plans.stages.priceLater === null ? '' : plainNumber(plans.stages.priceLater)}
      placeholder={known(p.price, (v) => plainNumber(v))}
      read={later}
      snapshot={() => []}
      width="78px"
      path="/stages/price"
    />
    <TypedField
      label="the second visit"
      text={plainNumber(plans.stages.visitCost)}
      read={field(
        'number',
        (v) => v >= 0 && v <= 1e6,
        'must be 0 to 1,000,000',
        (v) => plans.try({ visitCost: v }),
      )}
      snapshot={() => []}
      width="78px"
      path="/stages/visit"
    />
    <TypedField
      label="discount a year"
      text="{plainNumber(Number((plans.stages.discountRate * 100).toFixed(2)))} %"
      read={field(
        'share',
        (v) => v >= 0 && v <= 0.5,
        'must be 0 to 50 %',
        (v) => plans.try({ discountRate: v }),
      )}
      snapshot={() => []}
      width="70px"
      path="/stages/discount"
    />
  {/if}
</div>
{#if !p}
  <p class="note" role="status">{plans.away ?? session.result?.because.bank ?? 'One moment…'}</p>
{:else if p.not}
  <p class="note" data-testid="staged-not">{p.not}.</p>
{:else}
  <div class="two">
    <section aria-label="The money">
      {#if p.money}
        {@const m = p.money}
        <h3>In today’s money, units and the second visit</h3>
        <div class="bars" data-testid="staged-money">
          <span>all at once</span>
          <span class="bar"><i style:width="{(m.atOnceValue / scale) * 100}%"></i></span>
          <b class="fig">{money(m.atOnceValue)}</b>
          <span>in stages</span>
          <span class="bar"
            ><i style:width="{(m.payNow / scale) * 100}%"></i><i
              class="later"
              style:width="{((m.stagedValue - m.payNow) / scale) * 100}%"
            ></i></span
          >
          <b class="fig">{money(m.stagedValue)}</b>
        </div>
        <p class="note">
          {money(m.payNow)} now, {money(m.payLater)} then. Waiting pays {m.breakEvenPrice >= 0
            ? `as long as a unit costs ${money(m.breakEvenPrice)} or less then`
            : 'at no price'}. Old units hold {num(m.oldFactor * 100, 0)} % by then: {say(m.usableLaterStagedWh, 'Wh')} usable,
          against {say(m.usableLaterAtOnceWh, 'Wh')} if all were bought now.
        </p>
      {:else}<p class="note">What a unit costs is not known: of the money nothing is said.</p>{/if}
      {#if p.first}
        <h3>What the first stage does alone</h3>
        <p class="note" data-testid="first-stage">
          {p.first.name}: {say(p.first.usableWh, 'Wh')} usable{p.first.continuousW === null
            ? ''
            : `, ${num(p.first.continuousW)} W without end`}.
        </p>
        {#each p.firstWrong as w, i (i)}<p class="note wrong"><Mark kind="wrong" /> {w}</p>{/each}
      {/if}
      {#if p.mixed}
        <h3>What the mixing of ages costs</h3>
        <p class="note" data-testid="mixing">{p.mixed.sentence}.</p>
        {#each p.mixed.wrong as w, i (i)}<p class="note wrong"><Mark kind="look" /> {w}</p>{/each}
      {/if}
    </section>
    <section aria-label="From the first day">
      <h3>Big enough from the first day</h3>
      {#if p.fromTheFirstDay.length === 0}<p class="note">Nothing: what the first stage needs alone is enough.</p>
      {:else}
        <table class="table table-xs" data-testid="first-day">
          <thead><tr><th></th><th>alone</th><th>for the whole</th></tr></thead>
          <tbody
            >{#each p.fromTheFirstDay as n (n.what)}<tr
                ><th scope="row">{n.what}</th><td class="fig">{n.alone}</td><td class="fig"><b>{n.whole}</b></td></tr
              >{/each}</tbody
          >
        </table>
        <p class="note">Bought for the whole, it is not bought twice.</p>
      {/if}
    </section>
  </div>
{/if}
{#if g}
  <section aria-label="Growth" class="growth" data-testid="growth">
    <h3>What growing takes</h3>
    <div class="options">
      {#each g.options as o (o.title)}
        <div class="option">
          <p><b>{o.title}</b></p>
          {#if o.not}<p class="note">{o.not}.</p>
          {:else}
            <p class="note">
              {o.moreUsableWh > 0 ? `${say(o.moreUsableWh, 'Wh')} more usable` : ''}{o.moreAcW
                ? `${o.moreUsableWh > 0 ? ', ' : ''}${num(Math.abs(o.moreAcW))} W ${o.moreAcW > 0 ? 'more' : 'less'} AC`
                : ''}; {known(o.costs, (v) => money(v))} in all
            </p>
            <ul>
              {#each o.needs as n, i (i)}<li>
                  {num(n.count, n.count % 1 ? 1 : 0)} × {n.what}{n.inPlaceOf &&
                  n.inPlaceOf !== n.what.replace(', larger', '')
                    ? `, in place of ${n.inPlaceOf}`
                    : ''}: {known(n.price, (v) => money(v, v < 10 ? 2 : 0))}
                </li>{/each}
            </ul>
            {#each o.wrong as w, i (i)}<p class="note wrong"><Mark kind="wrong" /> {w}</p>{/each}
          {/if}
        </div>
      {/each}
    </div>
    <h3>What today’s choice shuts out</h3>
    <ul class="shuts" data-testid="shuts-out">
      {#each g.shutsOut as s, i (i)}<li>{s}.</li>{:else}<li>Nothing that was tried.</li>{/each}
    </ul>
  </section>
{/if}

<style>
  h3 {
    font-weight: 700;
    font-size: 13.5px;
    margin-top: 10px;
  }
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: flex-end;
    margin: 6px 0;
  }
  .controls > label {
    display: inline-flex;
    flex-direction: column;
  }
  input[type='range'] {
    width: 150px;
    height: 26px;
    accent-color: var(--ink);
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
    gap: 4px 28px;
  }
  .bars {
    display: grid;
    grid-template-columns: max-content minmax(0, 1fr) max-content;
    gap: 5px 10px;
    align-items: center;
    font-size: 12.5px;
    margin: 4px 0;
  }
  .bar {
    display: flex;
    height: 16px;
  }
  .bar i {
    display: block;
    background: var(--ink);
    border: 1px solid var(--ink);
  }
  .bar .later {
    background: repeating-linear-gradient(45deg, var(--ink) 0 1.5px, var(--sheet) 1.5px 6px);
  }
  .wrong {
    display: flex;
    gap: 6px;
    align-items: baseline;
  }
  .options {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
    gap: 10px;
    margin-top: 4px;
  }
  .option {
    border: 1px solid var(--ink-3);
    padding: 7px 10px;
    font-size: 12.5px;
  }
  .option li {
    line-height: 1.3;
  }
  .shuts {
    font-size: 12.5px;
    list-style: square;
    padding-left: 16px;
  }
  .table :is(th, td) {
    font-size: 12.5px;
    padding: 2px 6px;
  }
  @media (max-width: 939px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
    input[type='range'],
    .controls .select {
      height: 44px;
    }
  }
</style>
