<script lang="ts">
  import { session } from '../../app/session.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import Mark from '../../ui/Mark.svelte'
  import { say, sizeName } from '../../ui/quantity'
  import { hand } from './hand.svelte'
  import ProtectionChart from './ProtectionChart.svelte'
  import { protection } from './protection.svelte'

  /** Protection in time, of the run in hand: a tab a run. */
  const chart = $derived(protection.answer?.run === hand.id ? protection.answer : null)
  $effect(() => {
    void session.evaluation
    void hand.id
    void session.bankIndex
    protection.ask()
  })
  const kinds = ['fits', 'look', 'wrong'] as const
  /** A fuse that does not fit is wrong in time too. */
  const markOf = (t: { run: string; mark: number }) => (hand.of(t.run)?.fits === false ? 2 : t.mark)
  const words = (t: { ratingA: number | null; size: string | null; conductors: number }) =>
    `${t.ratingA === null ? 'no fuse' : say(t.ratingA, 'rating')}, ${t.size ? sizeName(t.size, t.conductors) : 'no cable'}`
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
  const seconds = (least: number | null, most: number | null) =>
    least === null || most === null ? 'holds' : `${say(least, 's')} to ${say(most, 's')}`
</script>

{#if protection.answer}
  {@const tabs = protection.answer.tabs}
  <div class="tabs" role="group" aria-label="Runs">
    {#each tabs as t (t.run)}
      <button
        type="button"
        aria-pressed={t.run === hand.id}
        data-tab={t.run}
        onclick={() => (t.run === hand.id ? (hand.look = 'elevation') : (hand.id = t.run))}
        title={t.run === hand.id ? 'Its fields' : undefined}
      >
        <span class="name"><Mark kind={kinds[markOf(t)]} size={9} /> {capital(t.run === 'main' ? 'main' : t.name)}</span
        >
        <span class="fig">{words(t)}</span>
      </button>
    {/each}
  </div>
  <label class="pick"
    >Run
    <select class="select select-sm" bind:value={() => hand.id, (id) => (hand.id = id)}>
      {#each tabs as t (t.run)}<option value={t.run}
          >{capital(t.run === 'main' ? 'main' : t.name)}, {words(t)}{markOf(t) === 2
            ? ', wrong'
            : markOf(t) === 1
              ? ', to look at'
              : ''}</option
        >{/each}
    </select></label
  >
{/if}
{#if chart}
  {#if !chart.own && !chart.upstream && !chart.behind}<p class="note">No fuse stands before this run.</p>{/if}
  <ProtectionChart {chart} />
  <p class="key note">
    <span class="hint"
      >Left of a hatched band its fuse holds, right of it the fuse is open, inside it may be either. Right of a copper
      line that copper burns.</span
    >
    {chart.own?.own || chart.upstream?.own
      ? 'A maker’s own curve is in it; the others are typical times.'
      : 'Typical times of each class: the maker’s own curve rules.'}
  </p>
  <AsTable
    heads={['a short of', 'its fuse opens', 'the one upstream', 'copper stands', 'first']}
    rows={[]}
    plain={chart.rows.map((r) => [
      say(r.amps, 'A'),
      chart.own ? seconds(r.ownLeastS, r.ownMostS) : 'none',
      chart.upstream ? seconds(r.upLeastS, r.upMostS) : 'none',
      r.copperS === null ? 'over 5 s' : say(r.copperS, 's'),
      r.first,
    ])}
  />
{:else}
  <p class="note mt-3" role="status">{protection.away ?? session.result?.because.mainRun ?? 'One moment…'}</p>
{/if}

<style>
  .tabs {
    display: flex;
    flex-wrap: wrap;
    margin: 4px 0 2px;
  }
  .tabs button {
    text-align: left;
    border: 1px solid var(--hair);
    margin: 0 -1px -1px 0;
    padding: 2px 10px 3px;
    cursor: pointer;
    min-width: 76px;
    max-width: 190px;
  }
  .tabs .name {
    display: block;
    font-size: 13px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .tabs .fig {
    font-size: 12.5px;
    white-space: nowrap;
  }
  .tabs [aria-pressed='true'] {
    border-color: var(--copper);
    outline: 1px solid var(--copper);
    background: var(--tint);
    z-index: 1;
  }
  .tabs [aria-pressed='true'] .name {
    font-weight: 700;
  }
  .pick {
    display: none;
    font-size: 12.5px;
  }
  .key {
    margin-top: 2px;
  }
  .hint {
    display: none;
  }
  @media (max-width: 939px) {
    .tabs {
      display: none;
    }
    .pick,
    .hint {
      display: block;
    }
    .pick select {
      display: block;
      width: 100%;
      min-height: 44px;
    }
  }
</style>
