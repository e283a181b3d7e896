<script lang="ts">
  import type { Source } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { sayVolts } from '../../ui/quantity'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import { parse } from '../../ui/quantity'

  /** The presets a device has, of the whole bank, and the one it stands on. */
  let { doc, at }: { doc: Source; at: string } = $props()
  let [name, absorb, float, equalise, off, perKelvin] = $state(['', '', '', '', false, ''])
  let told = $state('')

  function volts(text: string) {
    const parsed = parse(text, 'voltage', 'metric')
    return text.trim() === '' ? null : 'value' in parsed ? parsed.value : NaN
  }

  function add() {
    const [absorbV, floatV, equaliseV] = [volts(absorb), volts(float), volts(equalise)]
    const mv = perKelvin.trim() === '' ? 0 : Number(perKelvin.replace('−', '-').replace(',', '.'))
    if (name.trim() === '' || absorbV === null) told = 'A name and its absorption are wanted.'
    else if ([absorbV, floatV, equaliseV, mv].some((v) => Number.isNaN(v))) told = 'Volts are numbers such as 28.4.'
    else if (mv > 0) told = 'Compensation is 0 or less, such as −36 mV a kelvin.'
    else if (doc.presets.some((p) => p.name === name.trim())) told = 'There is one of that name.'
    else {
      told = ''
      session.edit(
        {
          path: `~${at}/presets/-`,
          value: { name: name.trim(), absorbV, floatV, equaliseV, equaliseOff: off, compensationMvPerK: mv },
        },
        true,
      )
      ;[name, absorb, float, equalise, off, perKelvin] = ['', '', '', '', false, '']
    }
  }
  function drop(which: string) {
    session.edit(
      [
        ...(doc.settings.preset === which ? [{ path: `~${at}/settings/preset`, value: null }] : []),
        { path: `~${at}/presets`, value: doc.presets.filter((p) => p.name !== which) },
      ],
      true,
    )
  }
</script>

<details class="presets">
  <summary>Presets of its menu <span class="caption">{doc.presets.length}</span></summary>
  {#if doc.presets.length > 0}
    <ChoiceField
      label="it stands on"
      value={doc.settings.preset}
      options={doc.presets.map((p) => ({ value: p.name, text: p.name }))}
      none="user, or not known"
      width="180px"
      path="{at}/settings/preset"
      onpick={(value) => session.edit({ path: `~${at}/settings/preset`, value }, true)}
    />
    {#each doc.presets as p (p.name)}
      <p class="note">
        <b>{p.name}</b>: {sayVolts(p.absorbV)}{p.floatV === null
          ? ', no float'
          : `, float ${sayVolts(p.floatV)}`}{p.equaliseV === null
          ? ''
          : `, equalises at ${sayVolts(p.equaliseV)}${p.equaliseOff ? ', off' : ''}`}{p.compensationMvPerK === 0
          ? ''
          : `, ${p.compensationMvPerK} mV a kelvin`}
        <button type="button" class="link-copper min-h-6" onclick={() => drop(p.name)}>take it out</button>
      </p>
    {/each}
  {/if}
  <form
    class="line"
    onsubmit={(event) => {
      event.preventDefault()
      add()
    }}
  >
    <label
      ><span class="caption">name</span><input class="input input-xs w-28" maxlength="40" bind:value={name} /></label
    >
    <label
      ><span class="caption">absorption</span><input
        class="input input-xs w-20"
        bind:value={absorb}
        placeholder="28.4 V"
      /></label
    >
    <label
      ><span class="caption">float</span><input
        class="input input-xs w-20"
        bind:value={float}
        placeholder="none"
      /></label
    >
    <label
      ><span class="caption">equalise</span><input
        class="input input-xs w-20"
        bind:value={equalise}
        placeholder="none"
      /></label
    >
    <label
      ><span class="caption">mV a kelvin</span><input
        class="input input-xs w-20"
        bind:value={perKelvin}
        placeholder="0"
      /></label
    >
    <label class="tick"
      ><input type="checkbox" class="checkbox checkbox-xs" bind:checked={off} /> can be, and is, off</label
    >
    <button class="btn btn-outline btn-xs">Add the preset</button>
  </form>
  <p class="note" role="alert">{told}</p>
</details>

<style>
  .presets {
    border-top: 1px solid var(--hair);
    margin-top: 8px;
    padding-top: 5px;
  }
  summary {
    cursor: pointer;
    font-weight: 700;
    min-height: 26px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: flex-end;
    margin-top: 4px;
  }
  label {
    display: inline-flex;
    flex-direction: column;
  }
  .tick {
    flex-direction: row;
    gap: 6px;
    align-items: center;
    min-height: 26px;
  }
</style>
