<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Figures from '../../ui/Figures.svelte'
  import { sizeName } from '../../ui/quantity'
  import Elevation from './Elevation.svelte'
  import RunFields from './RunFields.svelte'

  const e = $derived(session.result)
  const r = $derived(e?.mainRun ?? null)
  const index = $derived(session.bank!.runs.findIndex((run) => run.id === 'main'))

  function addRun() {
    session.edit(
      {
        path: '~/runs/-',
        value: {
          id: 'main',
          from: 'bank',
          to: 'inverter',
          lengthM: null,
          size: null,
          parallel: null,
          place: null,
          ambientC: null,
          bundled: null,
          practice: null,
          fuse: { class: null, ratingA: null, distanceM: null, absent: false },
          switch: null,
          feeds: null,
          bypassesShunt: false,
        },
      },
      true,
    )
  }
</script>

{#if index >= 0}
  <RunFields {index} />
{:else}
  <p class="note mt-1">
    The main run stands as advised in everything. <button type="button" class="link-copper" onclick={addRun}
      >Say how long it is</button
    >
  </p>
{/if}
{#if r}
  <div class="mt-1.5">
    <Figures
      items={[
        {
          ptr: '/mainRun/ratingA',
          unit: 'rating',
          label: 'main fuse',
          note: r.fuseLabel.split(',')[0],
          testid: 'fuse-rating',
        },
        {
          ptr: '/mainRun/areaMm2',
          unit: 'mm2',
          label: 'main cable',
          note:
            r.size && session.units === 'imperial'
              ? sizeName(r.size, r.conductors)
              : r.conductors > 1
                ? `× ${r.conductors}`
                : undefined,
          testid: 'cable-area',
        },
        { ptr: '/protection/shortCircuitA', unit: 'A', label: 'bank pushes into a short', testid: 'short-circuit' },
        { ptr: '/protection/interruptA', unit: 'A', label: 'fuse can break', testid: 'interrupt' },
        { ptr: '/protection/greatestChargingV', unit: 'V', label: 'highest, charging', testid: 'charging-v' },
        { ptr: '/protection/maxDcV', unit: 'class', label: 'fuse made for', testid: 'fuse-v' },
        { ptr: '/mainRun/heatW', unit: 'W', label: 'heat in the loop' },
      ]}
    />
  </div>
  {#if e?.chain}<p class="note mt-0.5" data-testid="chain">{e.chain.sentence}.</p>{/if}
  <Elevation />
{:else}
  <p class="note mt-3">{e?.because.mainRun ?? 'Cable and fuse follow from the loads'}.</p>
{/if}
<p class="caution">
  Isolate every source and prove it dead before touching. Tables of cables and fuses are typical values of common
  practice: the rules where the system will be used, the makers’ instructions and a qualified person come first.
</p>
