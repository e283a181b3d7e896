<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { say, sizeName } from '../../ui/quantity'

  /** What is chosen of the main run: as advised, or pinned. */
  let { index }: { index: number } = $props()
  const run = $derived(session.bank!.runs[index])
  const r = $derived(session.result?.mainRun ?? null)
  const path = $derived(`/runs/${index}`)
  const reference = $derived(session.reference!)
  const practice = $derived(reference.practices.find((p) => p.id === r?.practice))
  const series = $derived(practice?.series ?? 'metric')
  const fuse = $derived(reference.fuseClasses.find((c) => c.id === r?.fuseClass))

  function pickSize(size: string | null) {
    session.edit(
      [
        { path: `~${path}/size`, value: size },
        { path: `~${path}/parallel`, value: size === null ? null : (run.parallel ?? 1) },
      ],
      true,
    )
  }
</script>

<div class="controls">
  <QuantityField label="one way" kind="length" path="{path}/lengthM" advised={r?.lengthM ?? 2} width="64px" />
  <ChoiceField
    label="cable"
    value={run.size}
    options={(practice?.sizes ?? []).map((s) => ({ value: s.size, text: `${s.size}, ${say(s.ampacityA, 'rating')}` }))}
    advised={r?.advised ? sizeName(r.advised.size, r.advised.conductors) : 'none fits'}
    width="132px"
    path="{path}/size"
    onpick={pickSize}
  />
  {#if run.size !== null}<QuantityField
      label="in parallel"
      kind="count"
      path="{path}/parallel"
      advised={1}
      width="56px"
    />{/if}
  <ChoiceField
    label="fuse class"
    value={run.fuse.class}
    options={reference.fuseClasses.map((c) => ({ value: c.id, text: c.label }))}
    advised="class T"
    width="136px"
    path="{path}/fuse/class"
    onpick={(id) => session.edit({ path: `~${path}/fuse/class`, value: id }, true)}
  />
  <ChoiceField
    label="rating"
    value={run.fuse.ratingA === null ? null : String(run.fuse.ratingA)}
    options={(fuse?.ratingsA ?? []).map((a) => ({ value: String(a), text: say(a, 'rating') }))}
    advised={r?.advisedRatingA ? say(r.advisedRatingA, 'rating') : ''}
    width="116px"
    path="{path}/fuse/ratingA"
    onpick={(a) => session.edit({ path: `~${path}/fuse/ratingA`, value: a === null ? null : Number(a) }, true)}
  />
  <QuantityField
    label="post to fuse"
    kind="length"
    path="{path}/fuse/distanceM"
    advised={r?.fuseDistanceM ?? 0.15}
    width="62px"
  />
  <ChoiceField
    label="place"
    value={run.place}
    options={[
      { value: 'cool', text: 'cool' },
      { value: 'hot', text: 'hot, 50 °C' },
    ]}
    advised={r ? say(r.ambientC, '°C') : ''}
    width="118px"
    path="{path}/place"
    onpick={(place) => session.edit({ path: `~${path}/place`, value: place }, true)}
  />
  <ChoiceField
    label="table, typical values"
    value={run.practice}
    options={reference.practices
      .filter((p) => p.series === series)
      .map((p) => ({ value: p.id, text: `${p.id.replace(/-/g, ' ')} °C` }))}
    advised={r ? r.practice.replace(/-/g, ' ') : ''}
    width="176px"
    path="{path}/practice"
    onpick={(id) => session.edit({ path: `~${path}/practice`, value: id }, true)}
  />
</div>

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 8px;
    margin-top: 6px;
    align-items: flex-end;
  }
</style>
