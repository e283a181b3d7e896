<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { fuseClasses, practiceName, practices } from '../../app/tables'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { say, sizeName } from '../../ui/quantity'
  import { ensure, hand, pathOf, put } from './hand.svelte'
  import type { RunInHand } from './hand.svelte'

  /** What is chosen of the run in hand: as advised, or pinned. */
  let { view }: { view: RunInHand } = $props()
  const run = $derived(view.doc)
  const r = $derived(view.run)
  const path = $derived(pathOf(view.id))
  const practice = $derived(practices().find((p) => p.id === r.laid.practice))
  const series = $derived(practice?.series ?? 'metric')
  const fuse = $derived(fuseClasses().find((c) => c.id === r.fuse.class))
  const first = () => ensure(view.id)

  const NO_FUSE = 'none'
  function pickClass(id: string | null) {
    put(view.id, {
      fuse: { ...run.fuse, absent: id === NO_FUSE, class: id === NO_FUSE ? run.fuse.class : id, ratingA: null },
    })
  }
  function pickSize(size: string | null) {
    put(view.id, { size, parallel: size === null ? null : (run.parallel ?? 1), conductorLengthsM: [] })
  }
</script>

<div class="controls" data-testid="run-fields">
  <QuantityField
    label="one way"
    kind="length"
    path="{path}/lengthM"
    advised={r.laid.lengthM}
    width="64px"
    ensure={first}
  />
  <ChoiceField
    label="cable"
    value={run.size}
    options={(practice?.sizes ?? []).map((s) => ({ value: s.size, text: `${s.size}, ${say(s.ampacityA, 'rating')}` }))}
    advised={r.cable.advised ? sizeName(r.cable.advised.size, r.cable.advised.conductors) : 'none fits'}
    width="136px"
    path="{path}/size"
    onpick={pickSize}
  />
  {#if run.size !== null}<QuantityField
      label="in parallel"
      kind="count"
      path="{path}/parallel"
      advised={1}
      width="56px"
      ensure={first}
    />{/if}
  <ChoiceField
    label="fuse class"
    value={run.fuse.absent ? NO_FUSE : run.fuse.class}
    options={[
      ...fuseClasses().map((c) => ({ value: c.id, text: c.label })),
      { value: NO_FUSE, text: 'no fuse at all' },
    ]}
    advised={run.fuse.class === null && !run.fuse.absent ? r.fuse.label.split(',')[0].replace(/^ISO \S+ /, '') : ''}
    width="176px"
    path="{path}/fuse/class"
    onpick={pickClass}
  />
  {#if !run.fuse.absent}
    <ChoiceField
      label="rating"
      value={run.fuse.ratingA === null ? null : String(run.fuse.ratingA)}
      options={(fuse?.ratingsA ?? []).map((a) => ({ value: String(a), text: say(a, 'rating') }))}
      advised={r.fuse.advisedRatingA ? say(r.fuse.advisedRatingA, 'rating') : ''}
      width="116px"
      path="{path}/fuse/ratingA"
      onpick={(a) => put(view.id, { fuse: { ...run.fuse, ratingA: a === null ? null : Number(a) } })}
    />
    {#if !view.main}<QuantityField
        label={view.circuit?.kind === 'charge' ? 'bus to fuse' : 'begin to fuse'}
        kind="length"
        path="{path}/fuse/distanceM"
        advised={r.fuse.distanceM}
        width="62px"
        ensure={first}
      />{/if}
  {/if}
  <ChoiceField
    label="place"
    value={run.place}
    options={[
      { value: 'cool', text: 'cool' },
      { value: 'hot', text: 'hot, 50 °C' },
    ]}
    advised={say(r.laid.ambientC, '°C')}
    width="118px"
    path="{path}/place"
    onpick={(place) => put(view.id, { place: place as 'cool' | 'hot' | null })}
  />
  <ChoiceField
    label={run.practice?.startsWith('own-') || r.laid.practice.startsWith('own-')
      ? 'table, your own'
      : 'table, typical values'}
    value={run.practice}
    options={practices()
      .filter((p) => p.series === series)
      .map((p) => ({ value: p.id, text: practiceName(p.id) }))}
    advised={practiceName(r.laid.practice)}
    width="176px"
    path="{path}/practice"
    onpick={(id) => put(view.id, { practice: id })}
  />
</div>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 5px 8px;
    margin-top: 4px;
    align-items: flex-end;
  }
</style>
