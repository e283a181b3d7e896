<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Figures from '../../ui/Figures.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { num, sayVolts } from '../../ui/quantity'
  import Envelope from './Envelope.svelte'

  const e = $derived(session.result)
  const i = $derived(e?.inverter)
  const choice = $derived(session.bank!.inverters[0] ?? null)
  const systemV = $derived(e?.voltage?.systemV ?? 12)
  const NONE = 'none'
  const options = $derived.by(() => {
    const all = session.reference!.inverters
    const listed = [...all.filter((o) => o.systemV === systemV), ...all.filter((o) => o.systemV !== systemV)].map(
      (o) => ({ value: o.key, text: o.name }),
    )
    const own =
      choice?.item && !all.some((o) => o.key === choice.item!.key)
        ? [{ value: choice.item.key || 'own', text: choice.item.name }]
        : []
    return [...own, ...listed, { value: NONE, text: 'no inverter' }]
  })
  const value = $derived(
    choice === null ? NONE : (choice.item?.key ?? null) === '' ? 'own' : (choice.item?.key ?? null),
  )

  function pick(key: string | null) {
    if (key === 'own') return
    if (key === NONE) {
      session.edit({ path: '~/inverters', value: [] }, true)
      return
    }
    const item = key === null ? null : (session.reference!.inverters.find((o) => o.key === key) ?? null)
    if (choice === null)
      session.edit({ path: '~/inverters', value: [{ id: 'i1', item, stack: 1, onH: null, feeds: null }] }, true)
    else session.edit({ path: '~/inverters/0/item', value: item }, true)
  }
</script>

<div class="controls">
  <ChoiceField
    label="inverter"
    {value}
    {options}
    advised={i?.advisedName ?? ''}
    width="236px"
    path="/inverters/0/item"
    onpick={pick}
  />
  {#if choice?.item}
    <QuantityField label="equal ones stacked" kind="count" path="/inverters/0/stack" width="70px" />
  {/if}
  {#if choice}
    <QuantityField
      label="left on, hours a day"
      kind="hours"
      path="/inverters/0/onH"
      advised={e?.energy?.inverterOnH ?? null}
      width="84px"
    />
  {/if}
</div>
{#if i && e?.loads && e.currents}
  <div class="mt-2">
    <Figures
      items={[
        {
          ptr: '/inverter/requiredContinuousW',
          unit: 'W',
          label: 'continuous, wanted',
          note: i.availableContinuousW === null ? undefined : `gives ${num(i.availableContinuousW)} W`,
          testid: 'required-continuous',
        },
        {
          ptr: '/inverter/requiredSurgeW',
          unit: 'W',
          label: 'surge, wanted',
          note: i.availableSurgeW === null ? undefined : `gives ${num(i.availableSurgeW)} W`,
          testid: 'required-surge',
        },
        {
          ptr: '/currents/inverterNominalA',
          unit: 'A',
          label: `DC, at ${sayVolts(e.voltage!.nominalV)}`,
          testid: 'inverter-nominal-a',
        },
        {
          ptr: '/currents/inverterWorstA',
          unit: 'A',
          label: `DC worst, at ${sayVolts(e.voltage!.lowV)}`,
          testid: 'inverter-worst-a',
        },
        { ptr: '/energy/idleWh', unit: 'Wh', label: 'idling, a day' },
      ]}
    />
  </div>
  {#if i.item}
    <p class="note mt-1">
      A load fills watts × seconds from the left. Its corner must stay below the line of what the inverter gives.
    </p>
    <Envelope />
  {/if}
{:else if choice === null}
  <p class="note mt-3">This bank feeds DC loads only. Choose an inverter above if AC is wanted.</p>
{/if}
{#if i?.item && i.item.continuousW >= 1000}
  <p class="caution">
    Before the main switch closes on an inverter of this size, charge its capacitors through a resistor: the inrush
    welds contacts. Its AC side, neutral–earth bonding and residual-current protection belong to a licensed electrician
    and to local rules.
  </p>
{/if}

<style>
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    margin-top: 6px;
    align-items: flex-end;
  }
</style>
