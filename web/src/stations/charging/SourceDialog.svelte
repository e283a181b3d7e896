<script lang="ts">
  import type { Change, Source } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { practices } from '../../app/tables'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Dialog from '../../ui/Dialog.svelte'
  import Fig from '../../ui/Fig.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import Weekdays from '../../ui/Weekdays.svelte'
  import type { Kind } from '../../ui/quantity'
  import { blank } from '../cables/hand.svelte'
  import { bench } from './bench.svelte'
  import HourlyField from './HourlyField.svelte'
  import HoursField from './HoursField.svelte'
  import NameField from './NameField.svelte'
  import Presets from './Presets.svelte'
  import { blankArray, blankEngine, blankSupply, hoursOf, kinds } from './sources'

  /** A source with all that is known of it: its device, its modules, engine or supply, its hours, its settings. */
  const index = $derived(bench.dialog?.what === 'source' ? bench.dialog.index : -1)
  const doc = $derived(session.bank?.sources[index] ?? null)
  const at = $derived(`/sources/${index}`)
  const result = $derived(session.result?.charging?.sources[index])
  const wants = $derived(session.result?.charging?.wants)
  const sizes = $derived(practices().find((p) => p.id === session.result?.mainRun?.laid.practice)?.sizes ?? [])

  /** The part a field leads into is there before the field is. */
  const ensure = (part: 'array' | 'engine' | 'supply', blank: object) => (): Change[] =>
    doc?.[part] ? [] : [{ path: `~${at}/${part}`, value: blank }]
  const inArray = ensure('array', blankArray)
  const inEngine = ensure('engine', blankEngine)
  const inSupply = ensure('supply', blankSupply)
  const inStart = (): Change[] =>
    doc?.start ? [] : [{ path: `~${at}/start`, value: { belowV: null, belowSoc: null, stopSoc: null } }]
  const inSetting = (name: keyof Source['settings']) => (): Change[] =>
    doc?.settings[name]
      ? []
      : [{ path: `~${at}/settings/${name}`, value: { value: null, set: false, seen: null, date: null } }]

  const arrayRun = $derived(session.bank?.runs.findIndex((r) => r.id === `array-${doc?.id}`) ?? -1)
  const blankRun = () => blank(`array-${doc!.id}`)
  const settings = $derived<{ name: keyof Source['settings']; label: string; kind: Kind; advised: number | null }[]>([
    { name: 'absorbV', label: 'absorption', kind: 'voltage', advised: wants?.absorbV ?? null },
    { name: 'absorbMinutes', label: 'for, min', kind: 'number', advised: wants?.absorbMinutesMost ?? null },
    { name: 'floatV', label: 'float', kind: 'voltage', advised: wants?.floatV ?? null },
    { name: 'equaliseV', label: 'equalise, 0: off', kind: 'voltage', advised: wants?.equaliseV ?? 0 },
    { name: 'compensationMvPerK', label: 'per kelvin, mV', kind: 'number', advised: wants?.tempCompMvPerK ?? null },
    { name: 'leastC', label: 'not below, °C', kind: 'number', advised: wants?.chargeStopBelowC ?? null },
    { name: 'amps', label: 'limited to', kind: 'current', advised: doc?.amps ?? null },
  ])

  function remove() {
    session.edit({ path: '~/sources', value: session.bank!.sources.filter((_, n) => n !== index) }, true)
    bench.dialog = null
  }
</script>

<Dialog
  open={doc !== null}
  wide
  title={doc?.name || 'A source'}
  onclose={() => {
    void session.commit()
    bench.dialog = null
  }}
>
  {#if doc}
    <div class="line">
      <NameField label="name" path="{at}/name" value={doc.name} />
      <ChoiceField
        label="what it is"
        value={doc.kind}
        options={kinds.map((k) => ({ value: k.kind, text: k.words }))}
        width="232px"
        path="{at}/kind"
        onpick={(kind) => kind && session.edit({ path: `~${at}/kind`, value: kind }, true)}
      />
      <QuantityField
        label={doc.kind === 'solar' ? 'controller gives' : 'gives'}
        kind="current"
        path="{at}/amps"
        placeholder="not said"
        width="76px"
      />
      {#if doc.kind !== 'solar' && !doc.wattsByHour}
        <HoursField label={hoursOf[doc.kind]} path="{at}/windows" windows={doc.windows} width="190px" />
      {/if}
    </div>
    {#if doc.kind === 'solar'}
      <h3>Modules and controller</h3>
      <div class="line">
        <QuantityField label="a module" kind="power" path="{at}/array/module/watts" ensure={inArray} width="76px" />
        <QuantityField label="in series" kind="count" path="{at}/array/series" ensure={inArray} width="52px" />
        <QuantityField label="strings" kind="count" path="{at}/array/strings" ensure={inArray} width="52px" />
        <QuantityField
          label="open, V"
          kind="voltage"
          path="{at}/array/module/vocV"
          placeholder="plate"
          ensure={inArray}
          width="70px"
        />
        <QuantityField
          label="at work, V"
          kind="voltage"
          path="{at}/array/module/vmpV"
          placeholder="plate"
          ensure={inArray}
          width="70px"
        />
        <QuantityField
          label="shorted, A"
          kind="current"
          path="{at}/array/module/iscA"
          placeholder="plate"
          ensure={inArray}
          width="70px"
        />
        <QuantityField
          label="greatest fuse"
          kind="current"
          path="{at}/array/module/maxFuseA"
          placeholder="plate"
          ensure={inArray}
          width="70px"
        />
        <QuantityField
          label="open, share a kelvin"
          kind="number"
          path="{at}/array/module/vocCoeffPerK"
          advised={-0.0027}
          ensure={inArray}
          width="84px"
        />
        <QuantityField
          label="at work, a kelvin"
          kind="number"
          path="{at}/array/module/vmpCoeffPerK"
          advised={-0.0035}
          ensure={inArray}
          width="84px"
        />
      </div>
      <div class="line">
        <QuantityField label="tilt, °" kind="number" path="{at}/array/tiltDeg" ensure={inArray} width="52px" />
        <QuantityField
          label="west of the equator, °"
          kind="number"
          path="{at}/array/azimuthDeg"
          ensure={inArray}
          width="64px"
        />
        <QuantityField label="shadows take" kind="share" path="{at}/array/shade" ensure={inArray} width="58px" />
        <label class="tick"
          ><input
            type="checkbox"
            class="checkbox checkbox-xs"
            checked={doc.array?.unlike ?? false}
            onchange={(ev) =>
              session.edit([...inArray(), { path: `~${at}/array/unlike`, value: ev.currentTarget.checked }], true)}
          /> unlike modules, or some shaded</label
        >
        <QuantityField
          label="controller bears"
          kind="voltage"
          path="{at}/array/controllerMaxV"
          placeholder="not said"
          ensure={inArray}
          width="76px"
        />
        <QuantityField
          label="takes in, A"
          kind="current"
          path="{at}/array/controllerMaxIscA"
          placeholder="not said"
          ensure={inArray}
          width="76px"
        />
        <QuantityField
          label="V over the bank to start"
          kind="voltage"
          path="{at}/array/startHeadroomV"
          advised={1}
          ensure={inArray}
          width="76px"
        />
      </div>
      {#if result?.arrayRun}
        <p class="note" data-testid="array-run">
          From the modules: <Fig
            ptr="/charging/sources/{index}/arrayRun/designA"
            unit="A"
            label="design current of the array"
            size={14}
          />
          on <Fig
            ptr="/charging/sources/{index}/arrayRun/cable/areaMm2"
            unit="mm2"
            label="cable of the array"
            size={14}
          />,
          <Fig ptr="/charging/sources/{index}/arrayRun/drop/v" unit="V" label="lost on the way" size={14} /> lost.
          {#if result.array?.fuseWanted}{result.array.fuseA
              ? `A fuse of ${result.array.fuseA} A in each string, made for the array’s volts.`
              : 'Its strings want fuses.'}{:else}So few strings need no fuse of their own.{/if}
          Its own fuse to the bus stands at 5 Cables &amp; fuses.
        </p>
        <div class="line">
          <QuantityField
            label="roof to controller"
            kind="length"
            path="/runs/{arrayRun < 0 ? session.bank!.runs.length : arrayRun}/lengthM"
            advised={result.arrayRun.laid.lengthM}
            ensure={() => (arrayRun < 0 ? [{ path: '~/runs/-', value: blankRun() }] : [])}
            width="70px"
          />
          <ChoiceField
            label="size"
            value={session.bank!.runs[arrayRun]?.size ?? null}
            options={sizes.map((s) => ({ value: s.size, text: s.size }))}
            advised={result.arrayRun.cable.advised?.size ?? ''}
            width="140px"
            onpick={(size) =>
              session.edit(
                arrayRun < 0
                  ? { path: '~/runs/-', value: { ...blankRun(), size } }
                  : { path: `~/runs/${arrayRun}/size`, value: size },
                true,
              )}
          />
        </div>
      {/if}
    {/if}
    {#if doc.kind === 'dc-dc' || doc.kind === 'alternator'}
      <h3>The engine’s side</h3>
      <div class="line">
        <QuantityField
          label="alternator"
          kind="current"
          path="{at}/engine/alternatorA"
          ensure={inEngine}
          width="76px"
        />
        <QuantityField
          label="the vehicle takes"
          kind="current"
          path="{at}/engine/vehicleA"
          ensure={inEngine}
          width="76px"
        />
        <QuantityField
          label="its volts"
          kind="voltage"
          path="{at}/engine/alternatorV"
          advised={13.8}
          ensure={inEngine}
          width="76px"
        />
        <QuantityField
          label="hot it gives"
          kind="share"
          path="{at}/engine/hotFactor"
          advised={0.6}
          ensure={inEngine}
          width="70px"
        />
      </div>
      {#if doc.kind === 'alternator'}
        <p class="note">Straight on it gives whatever the bank takes: hot, for long, more than it is made for.</p>
      {:else if result?.engine}
        <p class="note">
          {result.engine.fits ? 'It bears that hot' : 'Hot it does not bear that'}: <Fig
            ptr="/charging/sources/{index}/engine/alternatorShare"
            unit="fraction"
            label="share of what the alternator gives hot"
            size={14}
          /> of what it can is asked.
        </p>
      {/if}
    {/if}
    {#if doc.kind === 'mains' || doc.kind === 'generator'}
      <h3>What it hangs on</h3>
      <div class="line">
        <QuantityField
          label="supply"
          kind="current"
          path="{at}/supply/amps"
          placeholder="not said"
          ensure={inSupply}
          width="76px"
        />
        <QuantityField
          label="or watts"
          kind="power"
          path="{at}/supply/watts"
          placeholder="not said"
          ensure={inSupply}
          width="76px"
        />
        <QuantityField
          label="volts"
          kind="voltage"
          path="{at}/supply/volts"
          advised={session.design!.ac.volts}
          ensure={inSupply}
          width="70px"
        />
        <QuantityField
          label="for hours, share"
          kind="share"
          path="{at}/supply/share"
          placeholder="house rule"
          ensure={inSupply}
          width="80px"
        />
        <QuantityField
          label="other loads on it"
          kind="power"
          path="{at}/supply/otherW"
          ensure={inSupply}
          width="76px"
        />
        <QuantityField
          label="efficiency"
          kind="share"
          path="{at}/supply/efficiency"
          advised={0.88}
          ensure={inSupply}
          width="64px"
        />
        <QuantityField
          label="power factor"
          kind="number"
          path="{at}/supply/powerFactor"
          advised={0.95}
          ensure={inSupply}
          width="64px"
        />
      </div>
    {/if}
    {#if doc.windows !== null && doc.windows.length > 0}
      <h3>On these days of the week</h3>
      <Weekdays days={doc.weekdays} onpick={(days) => session.edit({ path: `~${at}/weekdays`, value: days }, true)} />
    {/if}
    {#if doc.kind === 'generator'}
      <h3>What starts it</h3>
      <div class="line">
        <QuantityField
          label="below, volts"
          kind="voltage"
          path="{at}/start/belowV"
          placeholder="by hand"
          ensure={inStart}
          width="76px"
        />
        <QuantityField
          label="below, charge"
          kind="share"
          path="{at}/start/belowSoc"
          placeholder="by hand"
          ensure={inStart}
          width="76px"
        />
        <QuantityField
          label="runs until"
          kind="share"
          path="{at}/start/stopSoc"
          placeholder="90 %"
          ensure={inStart}
          width="76px"
        />
      </div>
    {/if}
    {#if doc.kind === 'other'}
      <HourlyField path="{at}/wattsByHour" watts={doc.wattsByHour} />
    {/if}
    <h3>Its settings, where you choose them yourself</h3>
    <div class="line">
      {#each settings as s (s.name)}
        <QuantityField
          label={s.label}
          kind={s.kind}
          path="{at}/settings/{s.name}/value"
          advised={s.advised}
          ensure={inSetting(s.name)}
          width="84px"
        />
      {/each}
    </div>
    <Presets {doc} {at} />
    <p class="caution">
      Plates and data sheets come first; coefficients, efficiencies and what an alternator gives hot are typical values.
      Arrays may be over 60 V: isolate and prove them dead before touching.
    </p>
  {/if}
  {#snippet actions()}
    <button type="button" class="btn btn-outline btn-sm" onclick={remove}>Take it out</button>
  {/snippet}
</Dialog>

<style>
  h3 {
    font-weight: 700;
    font-size: 13.5px;
    border-top: 1px solid var(--hair);
    margin-top: 8px;
    padding-top: 5px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: flex-end;
    margin-top: 4px;
  }
  .tick {
    display: flex;
    gap: 6px;
    align-items: center;
    min-height: 26px;
  }
  @media (max-width: 939px) {
    .tick {
      min-height: 44px;
    }
  }
</style>
