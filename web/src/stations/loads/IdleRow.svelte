<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { say } from '../../ui/quantity'
  import type { DayAxis } from '../../ui/dayAxis'

  /** What the inverter takes only to be ready: a row like the others, which cannot be taken away, only understood. */
  interface Props {
    /** A figure of the day that is shown. */
    day: (field: string) => string
    shown: { inverterOnH: number; idleShare: number; neededOnH?: number }
    axis: DayAxis
  }
  let { day, shown, axis }: Props = $props()
  let open = $state(false)

  const inverter = $derived(session.result!.inverter!)
  const choice = $derived(session.bank!.inverters[0])
  const keeps = $derived(
    session
      .bank!.demand.loads.filter((l) => l.kind === 'ac' && l.quantity > 0 && !l.windows && (l.hours ?? 0) > 16)
      .map((l) => l.name || 'a load'),
  )
</script>

<div class="row">
  <button type="button" class="what" aria-expanded={open} onclick={() => (open = !open)}>
    <b>Inverter, idling</b>
    <span class="caption">{say(inverter.idleW, 'W')} for {say(shown.inverterOnH, 'h')} a day</span>
  </button>
  <div class="day">
    <svg width={axis.width} height="23" aria-hidden="true" class="block">
      {#each axis.ticks() as h (h)}<line x1={axis.x(h)} x2={axis.x(h)} y1="0" y2="23" stroke="var(--grid)" />{/each}
      <rect
        x="0.5"
        y="8.5"
        width={axis.width - 1}
        height="6"
        fill="none"
        stroke="var(--ink-3)"
        stroke-dasharray={shown.inverterOnH < 24 ? '4 3' : undefined}
      />
    </svg>
  </div>
  <span class="text-right"><Fig ptr={day('/idleWh')} unit="Wh" label="inverter idling, a day" size={15} /></span>
  <span class="text-right"><Fig ptr={day('/idleAh')} unit="Ah" label="inverter idling, ampere-hours" size={13} /></span>
  <span class="text-right share">
    <span class="bar" style:width="{shown.idleShare * 100}%"></span>
    <Fig ptr={day('/idleShare')} unit="fraction" label="idle draw, share of the day" size={13} />
  </span>
</div>
{#if open}
  <div class="about">
    <QuantityField
      label="left on, hours a day"
      kind="hours"
      path="/inverters/0/onH"
      advised={shown.inverterOnH}
      width="84px"
    />
    <p class="note">
      An inverter takes {say(inverter.idleW, 'W')} only to be ready, whether anything runs or not.
      {#if choice?.onH !== null && choice?.onH !== undefined}
        It counts for as long as it is left on, and never for less than its loads need.
      {:else}
        It counts for as long as its loads need it.
      {/if}
      {#if keeps.length > 0}
        {keeps.slice(0, 3).join(', ')} {keeps.length === 1 ? 'keeps' : 'keep'} it on.
      {/if}
    </p>
  </div>
{/if}

<style>
  .about {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: flex-end;
    padding: 6px 8px 10px;
    background: var(--tint);
    border: 1px solid var(--ink);
  }
  .about .note {
    flex: 1 1 280px;
    max-width: 60ch;
  }
</style>
