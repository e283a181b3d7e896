<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import TypedField from '../../ui/TypedField.svelte'
  import DrawField from './DrawField.svelte'
  import { library } from './library.svelte'
  import { kinds } from './loads'
  import StatesFields from './StatesFields.svelte'
  import TimesField from './TimesField.svelte'
  import WindowField from './WindowField.svelte'

  /** Everything about one load. */
  let { load, index, onremove }: { load: Load; index: number; onremove: () => void } = $props()
  const path = $derived(`/demand/loads/${index}`)
  let kept = $state('')

  const seasons = [
    { value: 'both', text: 'all year' },
    { value: 'winter', text: 'in winter' },
    { value: 'summer', text: 'in summer' },
  ]

  function pickKind(kind: string | null) {
    // Volts somebody gave stay, and with them what the amperes mean; else a converter's load is at 12 V, AC at the supply's volts.
    const supply = session.design!.ac.volts
    const given = load.kind === 'ac' && load.volts === supply ? null : load.volts
    const volts = given ?? (kind === 'converter' ? 12 : kind === 'ac' && load.amps !== null ? supply : null)
    // Behind an inverter the amperes of a DC device are other ones: its watts stay.
    const watts = kind === 'ac' && load.amps !== null && given !== null ? load.amps * given : null
    session.edit(
      [
        { path: `~${path}/kind`, value: kind },
        { path: `~${path}/volts`, value: volts },
        ...(watts === null
          ? []
          : [
              { path: `~${path}/watts`, value: Number(watts.toPrecision(9)) },
              { path: `~${path}/amps`, value: null },
            ]),
        ...(kind === 'ac' ? [] : [{ path: `~${path}/adapterEfficiency`, value: null }]),
      ],
      true,
    )
  }

  function intoStates() {
    const amps = load.amps ?? (load.watts ?? 0) / (load.volts ?? session.result?.voltage?.nominalV ?? 12)
    session.edit(
      [
        { path: `~${path}/states`, value: [{ name: 'on', amps: Number(amps.toPrecision(6)), share: 1 }] },
        { path: `~${path}/watts`, value: null },
        { path: `~${path}/amps`, value: null },
      ],
      true,
    )
  }

  async function keep() {
    kept = await library.keep(load)
  }
</script>

<div class="fields">
  <TypedField
    label="name"
    words
    text={load.name}
    width="150px"
    path="{path}/name"
    read={(typed) => {
      if (typed.length > 80) return { reason: '80 characters at most' }
      session.edit({ path: `~${path}/name`, value: typed })
      return {}
    }}
    snapshot={() => [{ path: `~${path}/name`, value: load.name }]}
  />
  <ChoiceField label="fed by" value={load.kind} options={kinds} width="142px" path="{path}/kind" onpick={pickKind} />
  <QuantityField label="how many" kind="count" path="{path}/quantity" width="52px" />
  <DrawField {load} {path} />
  {#if load.kind !== 'ac'}
    <QuantityField
      label="at"
      kind="voltage"
      path="{path}/volts"
      advised={load.kind === 'converter' ? 12 : (session.result?.voltage?.nominalV ?? null)}
      width="66px"
    />
  {/if}
  {#if load.kind === 'dc' && session.result?.loads?.rows[index]?.kind === 'converter'}
    <span class="caption self-center max-w-40" data-testid="fed-by-converter"
      >through a converter, as advised: {session.result.voltage?.systemV} V does not suit it</span
    >
  {/if}
  <TimesField {load} {path} />
  <QuantityField label="duty" kind="share" path="{path}/duty" width="62px" />
  <QuantityField label="starting watts" kind="power" path="{path}/surgeWatts" width="80px" />
  <QuantityField label="for" kind="seconds" path="{path}/startSeconds" advised={0.5} width="58px" />
  <ChoiceField
    label="season"
    value={load.season}
    options={seasons}
    width="96px"
    path="{path}/season"
    onpick={(season) => session.edit({ path: `~${path}/season`, value: season }, true)}
  />
  {#if load.kind === 'ac'}
    <QuantityField
      label="adapter efficiency"
      kind="share"
      path="{path}/adapterEfficiency"
      advised={null}
      placeholder="no adapter"
      width="92px"
    />
    <label class="check"
      ><input
        type="checkbox"
        class="checkbox checkbox-xs"
        checked={load.waveSensitive}
        onchange={(e) => session.edit({ path: `~${path}/waveSensitive`, value: e.currentTarget.checked }, true)}
      /><span>needs a sine wave</span></label
    >
  {:else}
    <WindowField {load} {path} />
    {#if !load.states?.length}
      <button type="button" class="btn btn-outline btn-xs" onclick={intoStates}>Has states</button>
    {/if}
  {/if}
  <span class="last">
    <span class="caption" role="status">{kept}</span>
    <button type="button" class="btn btn-outline btn-xs" onclick={keep}>Keep in my library</button>
    <button type="button" class="btn btn-outline btn-xs" onclick={onremove}
      ><X size={13} /><span>Remove</span><span class="sr-only">{load.name || 'this load'}</span></button
    >
  </span>
  {#if load.kind !== 'ac' && load.states?.length}
    <div class="w-full"><StatesFields states={load.states} path="{path}/states" row={index} /></div>
  {/if}
</div>

<style>
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 8px;
    align-items: flex-end;
    padding: 6px 8px 10px;
    background: var(--tint);
    border: 1px solid var(--ink);
  }
  .check {
    display: inline-flex;
    align-items: center;
    gap: 6px;
    min-height: 26px;
    font-size: 12.5px;
  }
  .last {
    margin-left: auto;
    display: inline-flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 8px;
  }
  @media (max-width: 939px) {
    .check,
    .last :global(.btn) {
      min-height: 44px;
    }
  }
</style>
