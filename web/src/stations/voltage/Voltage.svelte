<script lang="ts">
  import { api } from '../../api/client'
  import type { LadderRung } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { diameterMm, step125 } from '../../drawing/geometry'
  import Figures from '../../ui/Figures.svelte'
  import { num, sayVolts } from '../../ui/quantity'
  import Ladder from './Ladder.svelte'
  import RungColumn from './RungColumn.svelte'

  let rungs = $state.raw<LadderRung[] | null>(null)
  // The ladder follows the design; while one is on its way the newest state waits.
  let busy = false
  let again = false
  async function climb() {
    if (busy) {
      again = true
      return
    }
    busy = true
    do {
      again = false
      try {
        rungs = await api.ladder(session.worked!, session.bankIndex)
      } catch {
        // The figures that stand stay; the sheet says already when the server is away.
      }
    } while (again)
    busy = false
  }
  $effect(() => {
    if (session.evaluation) void climb()
  })

  const v = $derived(session.result?.voltage)
  const c = $derived(session.result?.currents)
  const pxPerMm = $derived(
    step125(
      34 / Math.max(1, ...(rungs ?? []).map((r) => (r.areaMm2 ? diameterMm(r.areaMm2) * (r.conductors ?? 1) : 1))),
    ),
  )
  const schools: Record<string, string> = {
    'by-current': 'current',
    'by-watts': 'watts',
    'mobile-12': 'its 12 V fixtures',
  }
  const labels = $derived([
    'main cable',
    'fuse',
    'drop',
    'bank allows',
    'inverter',
    'units',
    `units and inverter${session.design!.display.currency ? `, ${session.design!.display.currency}` : ''}`,
  ])
</script>

{#if v && c}
  <p class="note mt-0.5">
    The same loads worked out {rungs?.length ?? 'three'} times. By watts {v.byWattsV} V, by current {v.byCurrentV} V, for
    12 V fixtures {v.mobile12V} V; this design goes by {schools[v.school]}.
  </p>
  <div class="mt-1.5">
    <Figures
      items={[
        { ptr: '/voltage/nominalV', unit: 'V', label: `real volts of ${v.systemV} V`, testid: 'nominal-v' },
        { ptr: '/currents/bankNominalA', unit: 'A', label: 'from the bank, nominal', testid: 'nominal-a' },
        { ptr: '/currents/bankWorstA', unit: 'A', label: `worst, at ${sayVolts(v.lowV)}`, testid: 'worst-a' },
        { ptr: '/currents/ruleOfThumbA', unit: 'A', label: 'the “ten to one” rule says', testid: 'thumb-a' },
      ]}
    />
  </div>
  {#if rungs}
    <div class="ladder">
      <Ladder {rungs} height={320} />
      <div
        class="compare"
        style:grid-template-columns="96px repeat({rungs.length}, minmax(0, 1fr))"
        role="group"
        aria-label="What each voltage needs"
      >
        <div class="labels caption" aria-hidden="true">
          <span></span><span>discs: {num(pxPerMm)} px a mm</span>
          {#each labels as label (label)}<span>{label}</span>{/each}
        </div>
        {#each rungs as rung (rung.systemV)}<RungColumn {rung} {pxPerMm} />{/each}
      </div>
    </div>
  {/if}
{:else}
  <p class="note mt-2">
    The ladder appears with the first load: every voltage carries the same watts on another current.
  </p>
{/if}

<style>
  .ladder {
    display: grid;
    grid-template-columns: minmax(320px, 44%) minmax(0, 1fr);
    gap: 12px;
    margin-top: 6px;
  }
  .compare {
    display: grid;
    align-content: start;
  }
  .labels {
    display: grid;
    grid-template-rows: 34px 44px repeat(4, 26px) 36px 36px 34px 32px;
    align-items: center;
    padding: 6px 0;
    line-height: 1.15;
  }
  @media (max-width: 939px) {
    .labels {
      grid-template-rows: 56px 44px repeat(4, 26px) 52px 36px 34px 32px;
    }
    .ladder {
      grid-template-columns: minmax(0, 1fr);
    }
    .compare {
      grid-template-columns: 70px repeat(3, minmax(0, 1fr)) !important;
    }
  }
</style>
