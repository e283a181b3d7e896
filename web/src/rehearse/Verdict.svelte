<script lang="ts">
  import type { Remedy } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num } from '../ui/quantity'
  import { darkHours } from './days'
  import { year } from './year.svelte'

  /** What would end the dark hours: the cheapest pair with one button, then each alone as hours that are left of today's. */
  const now = $derived(year.remedies[0]?.darkH ?? year.outcome?.darkH ?? 0)
  const others = $derived(year.remedies.slice(1))
  const ends = $derived(others.filter((r) => r.darkH <= 0 && r.changes.length > 0))
  const apply = (remedy: Remedy) => session.edit(remedy.changes, true)
  const currency = $derived(session.design!.display.currency)
  const cost = (r: Remedy) => (r.cost ? `, ${r.cost > 0 ? '+' : '−'}${currency}${num(Math.abs(r.cost))}` : '')
  const risk = $derived(year.risk)
  const unfilled = $derived(session.evaluation!.findings.some((f) => f.rule === 'rehearse.lead-unfilled'))
</script>

<section aria-label="What would end it" data-testid="remedies">
  {#if now > 0}
    <h2>What would end it</h2>
    {#if year.pair}
      <p class="note">
        {year.pair.title[0].toUpperCase() + year.pair.title.slice(1)}: never dark, lowest {num(
          year.pair.lowestSoc * 100,
        )} %{cost(year.pair)}.
      </p>
      <p>
        <button type="button" class="btn btn-primary btn-sm" data-testid="do-both" onclick={() => apply(year.pair!)}
          >Do both</button
        > <span class="note">{darkHours(now)} → 0</span>
      </p>
    {:else if ends.length > 0}
      <p class="note">One of these alone ends it.</p>
    {:else if year.searched}
      <p class="note">No two of these end it: less must be asked, or much more given.</p>
    {:else}<p class="note" role="status">Each is run through the same year…</p>{/if}
    <h2>Each alone: dark hours left</h2>
    <ul>
      {#each year.remedies as r, i (r.title)}
        <li data-remedy={r.title}>
          {#if i > 0 && r.changes.length > 0}
            <button type="button" class="link-copper" onclick={() => apply(r)}>{r.title}</button>
          {:else}<span class={[i === 0 && 'font-bold']}>{r.title}</span>{/if}
          <span class="caption days">{num(r.darkDays)} {r.darkDays === 1 ? 'day' : 'days'}{cost(r)}</span>
          <span class="bar"><span style:width="{Math.min(100, (r.darkH / now) * 100)}%"></span></span>
          <span class="fig text-right">{darkHours(r.darkH)}</span>
        </li>
      {/each}
    </ul>
  {:else if year.outcome}
    <p class="note">Never dark in this weather.</p>
  {/if}
</section>
{#if year.outcome}
  {@const o = year.outcome}
  {#if o.stays.length > 0}
    <section aria-label="What must not go dark" data-testid="stays">
      <h2>What must not go dark</h2>
      <ul>
        {#each o.stays as s (s.load)}
          <li class="stay">
            <b>{s.name}</b>
            <span class="note"
              >{s.hours <= 0
                ? 'never dark in this weather'
                : `dark for ${darkHours(s.hours)}, ${darkHours(s.longestH)} at the longest${s.hasReserve ? '; its reserve must last as long' : ''}`}</span
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  <section aria-label="What it teaches" data-testid="taught">
    <h2>What it teaches</h2>
    <p class="note">
      {#if session.design!.cyclesPerYear === null}
        <b class="fig">{num(o.cyclesPerYear)}</b> full cycles a year, which
        <a class="link-copper" href="#/d/{session.id}/builds">Builds</a> counts now.
      {:else}
        <b class="fig">{num(o.cyclesPerYear)}</b> full cycles a year; Builds counts the {num(
          session.design!.cyclesPerYear,
        )}
        that were put in:
        <button
          type="button"
          class="link-copper"
          onclick={() => session.edit({ path: '/cyclesPerYear', value: null }, true)}>count these</button
        >.
      {/if}
      How low it went stands at <a class="link-copper" href="#/d/{session.id}/bank">Bank</a>{#if unfilled}, and that
        lead is not full for <b class="fig">{num(o.longestUnfilledDays)}</b> days at
        <a class="link-copper" href="#/d/{session.id}/charging">Charging</a>{/if}.
    </p>
  </section>
  <section aria-label="Other weather" data-testid="risk">
    <h2>Other weather</h2>
    {#if year.risking}
      <p class="note" role="status">
        {risk ? `${num(risk.done)} of ${num(risk.of)} years` : 'The first years…'}
        <button type="button" class="link-copper" onclick={() => year.stopRisk()}>Stop</button>
      </p>
    {:else}
      <p>
        <button type="button" class="link-copper" onclick={() => year.ask()}>Run fifty years of other weather</button>
      </p>
    {/if}
    {#if risk?.risk}
      {@const r = risk.risk}
      <p class="note">
        Dark in <b class="fig">{num(r.darkRuns)}</b> of {num(r.runs)} years;
        <b class="fig">{darkHours(r.meanDarkHours)}</b>
        on the mean, <b class="fig">{darkHours(r.p95DarkHours)}</b> in one of twenty,
        <b class="fig">{darkHours(r.worstDarkHours)}</b>
        at worst.
        {#if r.shareAtMost !== null}That proves only that fewer than <b class="fig">{num(r.shareAtMost * 100, 1)} %</b> of
          years are dark.{/if}
      </p>
    {:else if risk && !year.risking}
      <p class="note">Stopped after {num(risk.done)} of {num(risk.of)} years.</p>
    {/if}
  </section>
{/if}

<style>
  .stay {
    display: block;
    font-size: 12.5px;
  }
  h2 {
    font-weight: 700;
    font-size: 13.5px;
    margin-top: 8px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 84px;
    gap: 0 8px;
    padding: 2px 0;
  }
  li .link-copper {
    text-align: left;
    min-height: 24px;
  }
  .days {
    text-align: right;
    align-self: end;
  }
  .bar {
    border: 1px solid var(--ink-3);
    height: 10px;
    align-self: center;
  }
  .bar span {
    display: block;
    height: 100%;
    background: var(--ink);
  }
  @media (max-width: 939px) {
    .link-copper {
      min-height: 44px;
    }
  }
</style>
