<script lang="ts">
  import { api } from '../../api/client'
  import type { RunTrials } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import Mark from '../../ui/Mark.svelte'
  import { known, num, say, sayVolts, sizeName } from '../../ui/quantity'
  import { hand, put } from './hand.svelte'
  import type { RunInHand } from './hand.svelte'
  import Modal from './Modal.svelte'

  /** The sizes one has at hand and every class of fuse, tried against what the run in hand needs. */
  let { view }: { view: RunInHand } = $props()
  let trials = $state.raw<RunTrials | null>(null)
  let told = $state('')
  let all = $state(false)

  async function ask() {
    const run = view.id
    try {
      const answer = await api.runTrials(session.worked!, session.bankIndex, run)
      if (run === view.id) trials = answer
      told = ''
    } catch (e) {
      told = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }
  // Whatever is taken here is tried again at once.
  $effect(() => {
    if (hand.dialog === 'sizes' && session.evaluation) void ask()
  })
  const currency = $derived(session.design?.display.currency ?? '')
  const money = (value: number) => `${num(value)}${currency ? ` ${currency}` : ''}`
  /** Around what is laid and what fits; the rest on request. */
  const near = $derived.by(() => {
    if (!trials) return []
    const first = trials.sizes.findIndex((s) => s.fits)
    const here = trials.sizes.findIndex((s) => s.here)
    const from = Math.max(0, Math.min(first < 0 ? 99 : first, here < 0 ? 99 : here) - 3)
    const most = Math.max(first, here) + 5
    return trials.sizes.filter((s, i) => all || (i >= from && i <= most))
  })
  function why(s: RunTrials['sizes'][number]): string {
    if (s.fits) return s.here ? 'laid' : s.advised ? 'advised' : ''
    if (!s.ampacityOk) return `carries ${num(s.ampacityA)} A, ${say(trials!.designA, 'A')} flow`
    if (!s.fuseOk) return `carries ${num(s.ampacityA)} A, below the ${say(trials!.ratingA ?? 0, 'rating')} fuse`
    return `drops more than ${say(trials!.dropLimit, 'fraction')}`
  }
  function whyNot(c: RunTrials['classes'][number]): string {
    const words = {
      rating: `none made for ${say(trials!.wantedA, 'A')}`,
      cable: `${say(c.ratingA ?? 0, 'rating')} is above the cable`,
      voltage: `made for ${sayVolts(c.maxDcV)}, not ${sayVolts(trials!.greatestV)}`,
      interrupt: `breaks ${say(c.interruptA, 'A')}, a short is ${say(trials!.shortCircuitA ?? 0, 'A')}`,
    }
    // What is the class's own comes before the cable, which has a mend of its own.
    return words[c.fails.find((f) => f !== 'cable') ?? c.fails[0]]
  }
</script>

<Modal name="sizes" title="{view.name}: sizes on hand, classes of fuse" wide>
  {#if trials}
    <p class="note mt-1">
      {say(trials.designA, 'A')} over {say(trials.lengthM, 'm', session.units)} and back.
      {#if trials.up}One size up, {sizeName(trials.up.size, trials.up.conductors)}, saves {num(trials.up.savesV, 2)} V ({say(
          trials.up.savesFraction,
          'fraction',
        )}) and {num(trials.up.savesW, trials.up.savesW < 10 ? 1 : 0)} W of heat at full load, and costs {known(
          trials.up.costsMore,
          money,
        )} more.{/if}
    </p>
    <div class="overflow-x-auto">
      <table class="table table-xs mt-2" data-testid="sizes">
        <thead
          ><tr
            ><th scope="col">I have</th><th scope="col">carries</th><th scope="col">drops</th><th scope="col">heat</th
            ><th scope="col">copper and lugs</th><th scope="col">verdict</th><th scope="col"></th></tr
          ></thead
        >
        <tbody>
          {#each near as s (s.size + s.conductors)}
            <tr class={[s.here && 'here']} data-size={sizeName(s.size, s.conductors)}>
              <th scope="row">{sizeName(s.size, s.conductors)}</th>
              <td class="fig">{num(s.ampacityA)} A</td>
              <td class="fig">{num(s.dropV, 2)} V, {say(s.dropFraction, 'fraction')}</td>
              <td class="fig">{num(s.heatW, s.heatW < 10 ? 1 : 0)} W</td>
              <td class="fig">{known(s.price, money)}</td>
              <td
                ><Mark kind={s.fits ? 'fits' : 'wrong'} size={9} />
                {s.fits ? 'fits' : ''}{s.fits && why(s) ? ', ' : ''}{why(s)}</td
              >
              <td
                >{#if !s.here}<button
                    type="button"
                    class="link-copper min-h-6"
                    onclick={() => put(view.id, { size: s.size, parallel: s.conductors, conductorLengthsM: [] })}
                    >use it</button
                  >{/if}</td
              >
            </tr>
          {/each}
        </tbody>
      </table>
    </div>
    <button type="button" class="link-copper text-[12.5px] min-h-6" onclick={() => (all = !all)}
      >{all ? 'only those near it' : 'every size, up to three in parallel'}</button
    >
    <h3 class="font-bold text-[13.5px] mt-3">Fuse classes at this place</h3>
    <ul class="classes" data-testid="classes">
      {#each [...trials.classes].sort((a, b) => Number(b.fits) - Number(a.fits)) as c (c.id)}
        <li class={[c.id === view.run.fuse.class && 'chosen']}>
          <span class="name">{c.label}</span>
          {#if c.fits}
            <span
              >{#if c.relies}<span class="note">relies on the fuse upstream; </span>{/if}
              {#if c.id === view.run.fuse.class}<span class="note">chosen, {say(c.ratingA!, 'rating')}</span
                >{:else}<button
                  type="button"
                  class="link-copper min-h-6"
                  aria-label="use {say(c.ratingA!, 'rating')} of {c.label}"
                  onclick={() =>
                    put(view.id, { fuse: { ...view.doc.fuse, absent: false, class: c.id, ratingA: null } })}
                  >use {say(c.ratingA!, 'rating')}</button
                >{/if}</span
            >
          {:else}
            <span class="note">{whyNot(c)}</span>
          {/if}
        </li>
      {/each}
    </ul>
    <p class="caution">
      Ampacities, ratings and interrupt ratings are typical values of each class, prices are samples of the catalogue’s
      date: the maker’s own figures and the local rules come first.
    </p>
  {:else}
    <p class="note mt-2" role="status">{told || 'Trying every size…'}</p>
  {/if}
</Modal>

<style>
  .table th,
  .table td {
    font-size: 12.5px;
    padding: 2px 6px;
  }
  .table .fig {
    font-size: 13.5px;
  }
  .here {
    background: var(--tint);
  }
  li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 0 8px;
    padding: 3px 0;
    border-bottom: 1px solid var(--grid);
    font-size: 12.5px;
  }
  .chosen .name {
    font-weight: 700;
  }
  @media (min-width: 900px) {
    .classes {
      columns: 2;
      column-gap: 28px;
    }
    li {
      break-inside: avoid;
    }
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
    }
  }
</style>
