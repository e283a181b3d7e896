<script lang="ts">
  import { session } from '../app/session.svelte'
  import ChoiceField from '../ui/ChoiceField.svelte'
  import Fig from '../ui/Fig.svelte'
  import QuantityField from '../ui/QuantityField.svelte'
  import { say } from '../ui/quantity'
  import { converts, joinKinds, nameOf } from './banks'
  import type { JoinKind } from './banks'

  /** What joins two banks: through what, how much, and what that asks of copper and fuses on either side. */
  let { index, open }: { index: number; open: boolean } = $props()
  const join = $derived(session.design!.joins[index])
  const at = $derived(`/joins/${index}`)
  const banks = $derived(session.design!.banks)
  const options = $derived(banks.map((b) => ({ value: b.id, text: nameOf(b) })))
  const result = $derived(session.evaluation?.site?.joins[index] ?? null)
  const found = $derived(session.evaluation!.findings.filter((f) => f.place === at))

  /** Both ends are runs of their banks, each with its own fuse. */
  const ends = $derived(
    result === null
      ? []
      : [result.from, result.to].flatMap((id) => {
          const e = session.evaluation!.banks.find((b) => b.id === id)
          const run = e?.circuits.find((c) => c.id === result.run)
          return run ? [{ bank: id, run: run.run }] : []
        }),
  )
  const name = (id: string) => options.find((o) => o.value === id)?.text ?? id

  /** Two ends are never the same bank. */
  function end(which: 'from' | 'to', id: string | null) {
    if (id === null) return
    const other = which === 'from' ? 'to' : 'from'
    session.edit(
      [
        { path: `${at}/${which}`, value: id },
        ...(join[other] === id ? [{ path: `${at}/${other}`, value: join[which] }] : []),
      ],
      true,
    )
  }

  function remove() {
    const id = result?.run
    session.edit(
      [
        { path: '/joins', value: session.design!.joins.filter((_, i) => i !== index) },
        ...banks.flatMap((b, i) =>
          id && b.runs.some((r) => r.id === id)
            ? [{ path: `/banks/${i}/runs`, value: b.runs.filter((r) => r.id !== id) }]
            : [],
        ),
      ],
      true,
    )
  }
  let row = $state<HTMLElement>()
  $effect(() => {
    if (open) row?.scrollIntoView({ block: 'nearest' })
  })
</script>

<div class={['joined', open && 'open']} bind:this={row} data-joined={join.id || index}>
  <div class="fields">
    <ChoiceField label="from" value={join.from} {options} width="132px" onpick={(v) => end('from', v)} />
    <ChoiceField
      label="through"
      value={join.kind}
      options={joinKinds}
      width="124px"
      onpick={(v) => session.edit({ path: `${at}/kind`, value: v as JoinKind }, true)}
    />
    <ChoiceField label="to" value={join.to} {options} width="132px" onpick={(v) => end('to', v)} />
    <QuantityField label="amperes there" kind="current" path="{at}/amps" whole placeholder="not said" width="76px" />
    {#if converts(join.kind)}
      <QuantityField
        label="efficiency"
        kind="share"
        path="{at}/efficiency"
        whole
        advised={result?.through?.efficiency ?? 0.92}
        width="76px"
      />
      <QuantityField label="on, a day" kind="hours" path="{at}/hours" whole placeholder="not said" width="76px" />
      <QuantityField label="idle, off" kind="power" path="{at}/idleW" whole placeholder="0 W" width="72px" />
    {/if}
    <button type="button" class="btn btn-outline btn-xs out" onclick={remove}>take out</button>
  </div>
  {#if result?.through}
    {@const p = `/site/joins/${index}/through`}
    <p class="outcome">
      takes <Fig ptr="{p}/inA" unit="A" label="amperes into the join" size={13} />, at the worst
      <Fig ptr="{p}/worstInA" unit="A" label="amperes into the join at the worst" size={13} />;
      <Fig ptr="{p}/heatW" unit="W" label="heat of the join" size={13} /> of heat{#if result.through.day}; a day moves <Fig
          ptr="{p}/day/movedWh"
          unit="Wh"
          label="moved a day"
          size={13}
        /> and takes
        <Fig ptr="{p}/day/takenWh" unit="Wh" label="taken a day" size={13} />
      {/if}
    </p>
  {/if}
  {#if result?.rush}
    {@const p = `/site/joins/${index}/rush`}
    <p class="outcome">
      One full, the other empty: <Fig ptr="{p}/amps" unit="A" label="first current" size={13} /> rush through at first.
      {join.kind === 'isolator' ? '' : 'Close it only when both rest at the same volts.'}
    </p>
  {/if}
  {#each ends as e (e.bank)}
    <p class="caption">
      at {name(e.bank)}: {e.run.cable.size ?? 'no cable fits'}{e.run.fuse.ratingA === null
        ? ', no fuse fits'
        : ` behind ${say(e.run.fuse.ratingA, 'rating')}`}, for {say(e.run.designA, 'A')}, {say(
        e.run.laid.lengthM,
        'm',
        session.units,
      )}
    </p>
  {/each}
  {#each found as f (f.rule)}<p class="found"><b>{f.title}.</b> {f.why}</p>{/each}
</div>

<style>
  .joined {
    padding: 4px 8px 6px;
    border-left: 4px solid var(--copper);
    margin: 6px 0;
  }
  .open {
    background: var(--tint);
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 4px 10px;
  }
  .out {
    margin-left: auto;
  }
  .outcome,
  .found {
    font-size: 13px;
  }
  @media (max-width: 939px) {
    .fields :global(select),
    .fields :global(input),
    .out {
      min-height: 44px;
    }
  }
</style>
