<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { answer, fieldText, parse, say } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { ensure, indexOf, metres, pathOf, put } from './hand.svelte'
  import type { RunInHand } from './hand.svelte'

  /** What is seldom changed of a run: how it lies, its insulation, switch, limits, and with whom it is shared. */
  let { view }: { view: RunInHand } = $props()
  const run = $derived(view.doc)
  const r = $derived(view.run)
  const path = $derived(pathOf(view.id))
  const first = () => ensure(view.id)
  const hasSwitch = $derived(view.main ? !(run.switch?.absent ?? false) : run.switch !== null && !run.switch.absent)
  const switchNow = $derived(run.switch ?? { ratingA: null, maxDcV: null, atM: null, absent: false })
  const own = $derived(view.circuit?.kind === 'own')
  /** Other branches on the same volts, on whose fuse this load could hang. */
  const hosts = $derived(
    view.circuit?.kind === 'branch'
      ? session.result!.circuits.filter(
          (c) => c.kind === 'branch' && c.id !== view.id && c.nominalV === view.circuit!.nominalV,
        )
      : [],
  )
  const guests = $derived(
    session.bank!.runs.filter((g) => g.sharedWith === view.id && !session.result!.circuits.some((c) => c.id === g.id)),
  )
  function leave(id: string) {
    put(id, { sharedWith: null })
  }

  function readConductor(i: number, typed: string) {
    const write = (m: number) => fieldText(m, 'length', session.units)
    const fits = (m: number) => m >= 0.01 && m <= 500
    const parsed = parse(typed, 'length', session.units, fits)
    if ('value' in parsed && !fits(parsed.value)) return { reason: `must be ${write(0.01)} to ${write(500)}` }
    return answer(parsed, write, (m) => {
      const all = Array.from({ length: r.cable.conductors }, (_, n) => run.conductorLengthsM[n] ?? r.laid.lengthM)
      all[i] = m
      put(view.id, { conductorLengthsM: all.every((x) => x === all[0]) ? [] : all, lengthM: Math.max(...all) }, false)
    })
  }
</script>

<details class="more">
  <summary class="link-copper text-[12px]">more of this run</summary>
  <div class="controls">
    {#if own}<QuantityField label="carries" kind="current" path="{path}/amps" width="70px" />{/if}
    <QuantityField
      label="conductors that touch"
      kind="count"
      path="{path}/bundled"
      advised={1}
      width="76px"
      ensure={first}
    />
    <QuantityField
      label="own place, °C"
      kind="number"
      path="{path}/ambientC"
      advised={r.laid.ambientC}
      width="72px"
      ensure={first}
    />
    <ChoiceField
      label="insulation"
      value={run.insulation}
      options={[
        { value: 'thermoplastic', text: 'thermoplastic' },
        { value: 'thermosetting', text: 'thermosetting' },
      ]}
      advised="not known"
      width="142px"
      path="{path}/insulation"
      onpick={(v) => put(view.id, { insulation: v as typeof run.insulation })}
    />
    <QuantityField
      label="drop allowed"
      kind="share"
      path="{path}/dropLimit"
      advised={r.dropLimit}
      width="72px"
      ensure={first}
    />
    <label class="tick"
      ><input
        type="checkbox"
        class="checkbox checkbox-xs"
        checked={hasSwitch}
        onchange={(e) =>
          put(view.id, {
            switch: e.currentTarget.checked
              ? view.main
                ? null
                : { ...switchNow, absent: false }
              : { ...switchNow, absent: true },
          })}
      />
      {view.main ? 'disconnect' : 'switch'}</label
    >
    {#if hasSwitch}
      <QuantityField
        label="switch made for"
        kind="current"
        path="{path}/switch/ratingA"
        placeholder="not rated"
        width="80px"
        ensure={first}
      />
      <QuantityField
        label="at most, DC"
        kind="voltage"
        path="{path}/switch/maxDcV"
        placeholder="not rated"
        width="80px"
        ensure={first}
      />
    {/if}
    {#if view.main}
      <QuantityField
        label="bus bars made for"
        kind="current"
        path="{path}/busRatingA"
        placeholder="not rated"
        width="84px"
        ensure={first}
      />
      <label class="tick"
        ><input
          type="checkbox"
          class="checkbox checkbox-xs"
          checked={run.preCharge}
          onchange={(e) => put(view.id, { preCharge: e.currentTarget.checked })}
        />
        pre-charge for the inverter</label
      >
    {/if}
    {#if r.cable.conductors > 1}
      {#each { length: r.cable.conductors } as _, i (i)}
        <TypedField
          label="conductor {i + 1}"
          text={fieldText(run.conductorLengthsM[i] ?? r.laid.lengthM, 'length', session.units)}
          read={(typed) => readConductor(i, typed)}
          width="70px"
          path="/runs/conductorLengthsM/{i}"
          snapshot={() =>
            indexOf(view.id) < 0 ? [] : [{ path: `${session.base}/runs/${indexOf(view.id)}`, value: run }]}
        />
      {/each}
    {/if}
    {#if hosts.length > 0}
      <ChoiceField
        label="fuse and cable"
        value={run.sharedWith}
        options={hosts.map((h) => ({ value: h.id, text: `with ${h.name}` }))}
        none="its own"
        width="150px"
        onpick={(id) => put(view.id, { sharedWith: id })}
      />
    {/if}
    {#each guests as guest (guest.id)}
      <button type="button" class="link-copper text-[12px] min-h-6" onclick={() => leave(guest.id)}
        >give {session.bank!.demand.loads.find((l) => `load-${l.id}` === guest.id)?.name ?? guest.id} a fuse of its own</button
      >
    {/each}
    <label class="tick"
      ><input
        type="checkbox"
        class="checkbox checkbox-xs"
        checked={run.bypassesShunt}
        onchange={(e) => put(view.id, { bypassesShunt: e.currentTarget.checked })}
      />
      negative bypasses the shunt</label
    >
    {#if own}<button
        type="button"
        class="link-copper text-[12px] min-h-6"
        onclick={() =>
          session.edit({ path: '~/runs', value: session.bank!.runs.filter((x) => x.id !== view.id) }, true)}
        >take this run out</button
      >{:else if view.index >= 0 && !view.main}<button
        type="button"
        class="link-copper text-[12px] min-h-6"
        onclick={() =>
          session.edit({ path: '~/runs', value: session.bank!.runs.filter((x) => x.id !== view.id) }, true)}
        >{view.circuit?.kind === 'inverter' ? 'back to one main run' : 'all as advised'}</button
      >{/if}
  </div>
  <p class="caption">
    {r.joints.bolted} bolted connections and {r.joints.fused} of fuse or switch are counted in the drop, {say(
      r.joints.ohm,
      'ohm',
    )} in all. Lengths are one way; the return is as long. Fuse {metres(r.fuse.distanceM)} from its source.
  </p>
</details>

<style>
  summary {
    width: max-content;
    min-height: 24px;
  }
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 5px 10px;
    align-items: flex-end;
  }
  .tick {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    font-size: 12.5px;
    min-height: 26px;
  }
  @media (max-width: 939px) {
    .tick,
    .controls button {
      min-height: 44px;
    }
    summary {
      min-height: 44px;
      padding-block: 10px;
    }
  }
</style>
