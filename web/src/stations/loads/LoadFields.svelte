<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import type { Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import TypedField from '../../ui/TypedField.svelte'
  import DrawField from './DrawField.svelte'
  import { kinds } from './loads'
  import TimesField from './TimesField.svelte'

  /** Everything about one load. */
  let { load, index, onremove }: { load: Load; index: number; onremove: () => void } = $props()
  const path = $derived(`/demand/loads/${index}`)

  function pickKind(kind: string | null) {
    // Amperes keep their meaning: a converter's load is at 12 V until somebody says otherwise, AC at the supply's volts.
    const volts = kind === 'converter' ? 12 : kind === 'ac' && load.amps !== null ? session.design!.ac.volts : null
    session.edit(
      [
        { path: `~${path}/kind`, value: kind },
        { path: `~${path}/volts`, value: volts },
      ],
      true,
    )
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
      advised={session.result?.voltage?.nominalV ?? null}
      width="66px"
    />
  {/if}
  <TimesField {load} {path} />
  <QuantityField label="duty" kind="share" path="{path}/duty" width="62px" />
  {#if load.kind === 'ac'}
    <QuantityField label="starts at" kind="power" path="{path}/surgeWatts" width="80px" />
    <QuantityField label="for" kind="seconds" path="{path}/startSeconds" advised={0.5} width="58px" />
  {/if}
  <button
    type="button"
    class="btn btn-ghost btn-xs btn-square remove"
    aria-label="Remove {load.name || 'this load'}"
    onclick={onremove}><X size={15} /></button
  >
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
  .remove {
    margin-left: auto;
    height: 26px;
    width: 26px;
  }
</style>
