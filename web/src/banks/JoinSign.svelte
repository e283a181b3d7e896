<script lang="ts">
  import { session } from '../app/session.svelte'
  import { diameterMm } from '../drawing/geometry'
  import Mark from '../ui/Mark.svelte'
  import { say } from '../ui/quantity'
  import { joinKinds } from './banks'
  import { banksTable } from './table.svelte'

  /** What joins two banks: copper at its diameter, its amperes, and what it goes through. Pressed, it opens its fields. */
  let { index, back }: { index: number; back: boolean } = $props()

  const join = $derived(session.design!.joins[index])
  const result = $derived(session.evaluation?.site?.joins[index] ?? null)
  const runs = $derived(
    result === null
      ? []
      : session.evaluation!.banks.flatMap((b) => b.circuits.filter((c) => c.id === result.run && b.id === result.from)),
  )
  const area = $derived(runs[0]?.run.cable.areaMm2 ?? null)
  const thick = $derived(area === null ? 2 : Math.max(2, Math.min(12, diameterMm(area) * 2)))
  const found = $derived(session.evaluation!.findings.filter((f) => f.place === `/joins/${index}`))
  const mark = $derived(
    found.some((f) => f.grade === 'danger' || f.grade === 'fault')
      ? ('wrong' as const)
      : found.some((f) => f.grade === 'caution')
        ? ('look' as const)
        : null,
  )
  const kind = $derived(joinKinds.find((k) => k.value === join.kind)!.text)
</script>

<button
  type="button"
  class="copper-join"
  data-join={join.id || String(index)}
  title={found[0]?.title ?? `${kind}; press for its fields`}
  onclick={() => banksTable.show(join.id || String(index))}
>
  <span class="fig amps"
    >{join.amps === null ? '? A' : say(join.amps, 'rating')}{#if mark}
      <Mark kind={mark} size={9} />{/if}</span
  >
  <svg width="100%" height="14" aria-hidden="true" class="bare">
    <rect x="0" y={7 - thick / 2} width="100%" height={thick} fill="var(--copper-body)" />
    <rect x="0" y={7 - thick / 4} width="100%" height={Math.max(1, thick / 2)} fill="var(--copper)" />
    {#if join.kind !== 'straight'}
      <svg x="50%" width="20" height="14" overflow="visible">
        <rect x="-8" y="1" width="16" height="12" fill="var(--page)" stroke="var(--ink)" />
        {#if join.kind === 'relay'}
          <path d="M-5 9 L5 4" stroke="var(--ink)" stroke-width="1.4" />
        {:else}
          <path d={back ? 'M4 3 L-4 7 L4 11 Z' : 'M-4 3 L4 7 L-4 11 Z'} fill="var(--ink)" />
        {/if}
      </svg>
    {/if}
  </svg>
  <span class="caption kind">{kind}</span>
</button>

<style>
  .copper-join {
    display: flex;
    flex-direction: column;
    align-items: stretch;
    justify-content: center;
    text-align: center;
    cursor: pointer;
    min-width: 0;
    overflow: hidden;
    flex: 1 1 84px;
    line-height: 1.15;
  }
  .amps {
    font-size: 13px;
  }
  .kind {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    font-size: 11px;
  }
</style>
