<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import { refusal } from '../../ui/limits'
  import { fieldText, num, plainNumber, say } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { kinds } from './loads'
  import { readPhrase } from './phrase'

  /** The whole demand as one figure. */
  const figure = $derived(session.bank!.demand.figure)
  const at = (field: string) => `${session.base}/demand/figure/${field}`
  const text = $derived.by(() => {
    if (!figure) return ''
    const draw =
      figure.watts !== null
        ? `${plainNumber(figure.watts)} W`
        : figure.amps !== null
          ? fieldText(figure.amps, 'current', 'metric')
          : `${say(figure.energyWh ?? 0, 'Wh')}`
    return `${draw} ${figure.energyWh !== null ? 'over' : 'for'} ${say(figure.hours, 'h')}`
  })

  function read(typed: string) {
    const phrase = readPhrase(typed)
    if ('reason' in phrase) return phrase
    const { watts, amps, energyWh, hours } = phrase
    const reason =
      watts !== null
        ? refusal(at('watts'), watts, (b) => `${num(b)} W`)
        : amps !== null
          ? refusal(at('amps'), amps, (b) => `${num(b)} A`)
          : refusal(at('energyWh'), energyWh!, (b) => `${num(b)} Wh`)
    if (reason) return { reason }
    const kind = phrase.direct ? 'dc' : (figure?.kind ?? (session.bank!.inverters.length > 0 ? 'ac' : 'dc'))
    session.edit([
      { path: `${session.base}/demand/figure`, value: { kind, watts, amps, energyWh, hours } },
      ...(phrase.days === null
        ? []
        : [{ path: '/houseRules/own', value: { ...session.design!.houseRules.own, autonomy: phrase.days } }]),
    ])
    return { understood: phrase.understood }
  }
</script>

<div class="flex flex-wrap gap-x-3 gap-y-2 items-end mt-2">
  <TypedField
    label="the whole demand"
    {text}
    {read}
    words
    path="/demand/figure"
    placeholder="500 W for 4 hours"
    width="230px"
    faultsAt={[at('watts'), at('amps'), at('energyWh'), at('hours')]}
    snapshot={() => [
      { path: `${session.base}/demand/figure`, value: figure },
      { path: '/houseRules/own', value: session.design!.houseRules.own },
    ]}
  />
  {#if figure}
    <ChoiceField
      label="fed by"
      value={figure.kind}
      options={kinds}
      width="150px"
      path="/demand/figure/kind"
      onpick={(kind) => session.edit({ path: `${session.base}/demand/figure/kind`, value: kind }, true)}
    />
  {/if}
  <p class="note max-w-[52ch]">
    500 W for 4 hours · 55 A for 9 hours · 0.9 kWh a night · 100 Ah a day · 20 W for 3 days. The list of loads is kept
    meanwhile.
  </p>
</div>
