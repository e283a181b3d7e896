<script lang="ts">
  import { untrack } from 'svelte'
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import Figures from '../../ui/Figures.svelte'
  import { say, sizeName } from '../../ui/quantity'
  import AddDialog from './AddDialog.svelte'
  import DarkView from './DarkView.svelte'
  import Elevation from './Elevation.svelte'
  import { hand } from './hand.svelte'
  import ProtectionView from './ProtectionView.svelte'
  import Pieces from './Pieces.svelte'
  import RunFields from './RunFields.svelte'
  import RunMore from './RunMore.svelte'
  import SchedulesDialog from './SchedulesDialog.svelte'
  import TablesDialog from './TablesDialog.svelte'
  import SizesDialog from './SizesDialog.svelte'
  import Views from '../../ui/Views.svelte'

  const e = $derived(session.result)
  const view = $derived(hand.view)
  const r = $derived(view?.run ?? null)
  // Another design, or another bank: its main run comes first.
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => hand.reset())
  })
  const governs = {
    ampacity: 'the current decides the size',
    fuse: 'the fuse decides the size',
    drop: 'the drop decides the size',
    least: 'nothing thinner is laid',
  }
  const LOOKS = [
    ['elevation', 'elevation'],
    ['protection', 'protection'],
    ['dark', 'goes dark'],
  ] as const
  const f = $derived(view?.circuit?.fuse ?? null)
</script>

<Views name="How the runs are looked at" views={LOOKS} value={hand.look} onpick={(look) => (hand.look = look)} />
{#if view && r && e && hand.look === 'protection'}
  <ProtectionView />
{:else if view && r && e && hand.look === 'dark'}
  <DarkView />
{:else if view && r && e}
  <div class="lead">
    <p class="note" data-testid="run-in-hand">
      <b>{view.name}</b>{#if view.circuit}, {view.circuit.from} to {view.circuit.to}: {say(r.designA, 'A')}, {view
          .circuit.why}{/if}{r.cable.pinned
        ? ', size chosen by you'
        : r.cable.governs
          ? `, ${governs[r.cable.governs]}`
          : ''}{r.fuse.ratingPinned ? ', fuse chosen by you' : ''}.
    </p>
    <span class="dialogs">
      <button type="button" class="btn btn-outline btn-xs" onclick={() => (hand.dialog = 'sizes')}
        >Sizes and classes</button
      >
      <button type="button" class="btn btn-outline btn-xs" onclick={() => (hand.dialog = 'schedules')}>Schedules</button
      >
      <a class="btn btn-outline btn-xs" href="#/d/{session.id}/rules/drop-limit-main">House rules</a>
      <button type="button" class="btn btn-outline btn-xs" onclick={() => (hand.dialog = 'tables')}>Own tables</button>
      <button type="button" class="btn btn-outline btn-xs" onclick={() => (hand.dialog = 'add')}>Add</button>
      <a class="btn btn-outline btn-xs" href="#/d/{session.id}/summary">One page</a>
    </span>
  </div>
  <div class="later"><RunFields {view} /></div>
  <Elevation />
  {#if view.main && e.bus}<div class="later"><Pieces {view} /></div>{/if}
  <div class="mt-1.5 later">
    <Figures
      items={[
        {
          ptr: `${view.ptr}/fuse/ratingA`,
          unit: 'rating',
          label: view.main ? 'main fuse' : 'fuse',
          note: r.fuse.label.split(',')[0],
          testid: 'fuse-rating',
        },
        {
          ptr: `${view.ptr}/cable/areaMm2`,
          unit: 'mm2',
          label: view.main ? 'main cable' : 'cable',
          note:
            r.cable.size && session.units === 'imperial'
              ? sizeName(r.cable.size, r.cable.conductors)
              : r.cable.conductors > 1
                ? `× ${r.cable.conductors}`
                : undefined,
          testid: 'cable-area',
        },
        { ptr: `${view.ptr}/drop/v`, unit: 'V', label: 'lost on the way', testid: 'drop-v' },
        {
          ptr: `${view.fusePtr}/short/amps`,
          unit: 'A',
          label: view.main ? 'bank pushes into a short' : 'a short at the fuse',
          testid: 'short-circuit',
        },
        { ptr: `${view.fusePtr}/interruptA`, unit: 'A', label: 'fuse can break', testid: 'interrupt' },
        ...(view.main
          ? [{ ptr: '/protection/greatestChargingV', unit: 'V', label: 'highest, charging', testid: 'charging-v' }]
          : []),
        { ptr: `${view.fusePtr}/maxDcV`, unit: 'class', label: 'fuse made for', testid: 'fuse-v' },
        { ptr: `${view.ptr}/drop/heatW`, unit: 'W', label: 'heat in the loop' },
        {
          ptr: `${view.fusePtr}/surge/afterS`,
          unit: 's',
          label: view.main ? 'fuse holds the worst start, about' : 'fuse holds its start, about',
        },
        { ptr: `${view.fusePtr}/cable/standsS`, unit: 's', label: 'cable stands a short' },
      ].filter((item) => session.figure(item.ptr) !== null)}
    />
  </div>
  {#if f?.upstream.reliesOn && f.upstream.letThroughA2s !== null}<p class="note mt-0.5 later" data-testid="relies">
      A short here needs {f.upstream.reliesOn}: before it opens it lets <Fig
        ptr="{view.fusePtr}/upstream/letThroughA2s"
        unit="A2s"
        label="let through by the fuse upstream"
        size={14}
      /> through; this cable stands <Fig
        ptr="{view.fusePtr}/upstream/withstandsA2s"
        unit="A2s"
        label="what the cable stands"
        size={14}
      />.
    </p>{/if}
  {#if r.carries.as}<p class="note mt-0.5 later">
      {r.cable.size} is not in {r.laid.practice}: it goes by the figures of {r.carries.as}.
    </p>{/if}
  <div class="later"><RunMore {view} /></div>
{:else}
  <p class="note mt-3">{e?.because.mainRun ?? 'Cable and fuse follow from the loads'}.</p>
  <p class="mt-2">
    <button type="button" class="btn btn-outline btn-xs" onclick={() => (hand.dialog = 'tables')}>Own tables</button>
  </p>
{/if}
<p class="caution">
  Isolate every source and prove it dead before touching. Tables of cables and fuses are typical values of common
  practice: the rules where the system will be used, the makers’ instructions and a qualified person come first.
</p>
{#if view}
  <SizesDialog {view} />
  <SchedulesDialog />
  <AddDialog />
{/if}
<TablesDialog />

<style>
  .lead {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 4px 12px;
    margin-top: 2px;
  }
  .lead > p {
    flex: 1 1 260px;
  }
  .dialogs {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 4px;
    align-items: flex-start;
  }
  @media (max-width: 939px) {
    .dialogs .btn {
      min-height: 44px;
      padding-inline: 12px;
    }
    /* In the hand the picture comes first. */
    .later {
      order: 1;
    }
    .caution {
      order: 2;
    }
  }
</style>
