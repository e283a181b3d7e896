<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Dialog from '../../ui/Dialog.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import TypedField from '../../ui/TypedField.svelte'
  import { bench } from './bench.svelte'
  import { lastFields, numbersOf } from './list'
  import { MONTHS } from './months'

  /** Where it stands on earth: latitude and kind of climate, or hours of sun of one's own. */
  const place = $derived(session.design!.place)
  const text = $derived((place.sunHours ?? []).join(' '))
  let file = $state<HTMLInputElement>()
  let told = $state('')

  /** Twelve numbers in a text: lines with the month before them, or a list. */
  function twelve(typed: string): number[] | string {
    const list = numbersOf(typed)
    if (list.length !== 12) return `twelve values are wanted, January first; these are ${list.length}`
    if (list.some((h) => !(h >= 0 && h <= 12))) return 'hours of full sun a day, each from 0 to 12'
    return list
  }

  function read(typed: string) {
    if (typed.trim() === '') {
      session.edit({ path: '/place/sunHours', value: null })
      return {}
    }
    const list = twelve(typed)
    if (typeof list === 'string') return { reason: list }
    session.edit({ path: '/place/sunHours', value: list })
    return { understood: list.map((h, i) => `${MONTHS[i]} ${h}`).join(', ') }
  }

  async function bringIn() {
    const chosen = file?.files?.[0]
    if (!chosen) return
    // A month a line, the hours last: jan,1.2
    const list = twelve(lastFields(await chosen.text()))
    if (typeof list === 'string') told = list
    else {
      told = `Read from ${chosen.name}.`
      session.edit({ path: '/place/sunHours', value: list }, true)
    }
    file!.value = ''
  }
</script>

<Dialog
  open={bench.dialog?.what === 'place'}
  title="Where it stands"
  onshow={() => void bench.fetchClimates()}
  onclose={() => {
    void session.commit()
    bench.dialog = null
  }}
>
  <div class="line">
    <QuantityField
      whole
      label="latitude, ° north"
      kind="number"
      path="/place/latitudeDeg"
      placeholder="46"
      width="90px"
    />
    <ChoiceField
      label="climate"
      value={place.climate}
      options={bench.climates.map((c) => ({ value: c.id, text: c.label }))}
      none="not said"
      width="230px"
      onpick={(climate) => session.edit({ path: '/place/climate', value: climate }, true)}
    />
    <QuantityField whole label="coldest in light, °C" kind="number" path="/place/coldestC" advised={-10} width="90px" />
    <QuantityField
      whole
      label="the bank’s place, °C"
      kind="number"
      path="/place/ambientC"
      placeholder="house rule"
      width="90px"
    />
  </div>
  <p class="note mt-2">
    Clearness by climate is a table of typical values; a month’s yield is the mean over ten years of made-up weather.
    South of the equator the latitude is negative.
  </p>
  <TypedField
    label="or your own hours of full sun a day on the level, January to December"
    {text}
    {read}
    width="min(460px, 80vw)"
    placeholder="by latitude and climate"
    faultsAt={['/place/sunHours']}
    snapshot={() => [{ path: '/place/sunHours', value: place.sunHours }]}
  />
  <p class="line">
    <button type="button" class="btn btn-outline btn-xs" onclick={() => file?.click()}>From a CSV</button>
    <input
      bind:this={file}
      type="file"
      accept=".csv,text/csv,text/plain"
      class="sr-only"
      aria-label="CSV of sun hours"
      onchange={bringIn}
    />
    <span class="note" role="status">{told || 'a month a line, the hours last: jan,1.2'}</span>
  </p>
</Dialog>

<style>
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: flex-end;
    margin-top: 6px;
  }
</style>
