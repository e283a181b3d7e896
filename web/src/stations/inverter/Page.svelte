<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Figures from '../../ui/Figures.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import { num, say, sayVolts } from '../../ui/quantity'
  import { ac as acSide } from './ac.svelte'
  import AcView from './AcView.svelte'
  import Envelope from './Envelope.svelte'
  import Views from '../../ui/Views.svelte'

  const e = $derived(session.result)
  const i = $derived(e?.inverter)
  const choice = $derived(session.bank!.inverters[0] ?? null)
  const systemV = $derived(e?.voltage?.systemV ?? 12)
  const NONE = 'none'
  const LOOKS = [
    ['envelope', 'what it holds'],
    ['ac', 'AC side'],
  ] as const
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

  const feeds = [
    { value: 'transfer', text: 'pass-through, with transfer' },
    { value: 'panel', text: 'a panel, by a selector' },
    { value: 'sockets', text: 'its own sockets only' },
  ]
  const chargers = [
    { value: 'shore', text: 'shore or generator' },
    { value: 'own-output', text: 'this inverter’s outlets' },
  ]
  const ac = $derived(`${session.design!.ac.volts}/${session.design!.ac.hz}`)
  const supplies = $derived(
    [...new Set(['230/50', '120/60', '230/60', '100/50', ac])].map((value) => ({
      value,
      text: `${value.split('/')[0]} V, ${value.split('/')[1]} Hz`,
    })),
  )

  function pick(key: string | null) {
    if (key === 'own') return
    if (key === NONE) {
      session.edit({ path: '~/inverters', value: [] }, true)
      return
    }
    const item = key === null ? null : (session.reference!.inverters.find((o) => o.key === key) ?? null)
    if (choice === null)
      session.edit(
        { path: '~/inverters', value: [{ id: 'i1', item, stack: 1, onH: null, feeds: null, charger: null }] },
        true,
      )
    else session.edit({ path: '~/inverters/0/item', value: item }, true)
  }
</script>

<Views name="How the inverter is looked at" views={LOOKS} value={acSide.look} onpick={(look) => (acSide.look = look)} />
{#if acSide.look === 'ac'}
  <AcView />
{:else}
  <div class="controls">
    <ChoiceField
      label="inverter"
      {value}
      {options}
      advised={i?.advisedName ?? ''}
      width="206px"
      path="/inverters/0/item"
      onpick={pick}
    />
    {#if choice?.item}
      <QuantityField label="stacked" kind="count" path="/inverters/0/stack" width="50px" />
    {/if}
    {#if choice}
      <QuantityField
        label="left on a day"
        kind="hours"
        path="/inverters/0/onH"
        advised={e?.energy?.inverterOnH ?? null}
        width="64px"
      />
      <QuantityField
        label="around it, °C"
        kind="number"
        path="/place/ambientC"
        whole
        advised={session.design!.place.hot ? 50 : 25}
        width="64px"
      />
      <ChoiceField
        label="AC goes out"
        value={choice.feeds}
        options={feeds}
        none="not said"
        width="122px"
        path="/inverters/0/feeds"
        onpick={(v) => session.edit({ path: '~/inverters/0/feeds', value: v }, true)}
      />
      <ChoiceField
        label="charger hangs on"
        value={choice.charger}
        options={chargers}
        none="no charger"
        width="112px"
        path="/inverters/0/charger"
        onpick={(v) => session.edit({ path: '~/inverters/0/charger', value: v }, true)}
      />
      <ChoiceField
        label="AC"
        value={ac}
        options={supplies}
        width="100px"
        path="/ac"
        onpick={(v) => {
          const [volts, hz] = (v ?? '230/50').split('/').map(Number)
          session.edit({ path: '/ac', value: { volts, hz } }, true)
        }}
      />
    {/if}
  </div>
  {#if i && e?.loads && e.currents}
    <div class="mt-2">
      <Figures
        items={[
          {
            ptr: '/inverter/wanted/continuousW',
            unit: 'W',
            label: 'continuous, wanted',
            note: i.gives.continuousW === null ? undefined : `gives ${num(i.gives.continuousW)} W`,
            testid: 'required-continuous',
          },
          {
            ptr: '/inverter/wanted/surgeW',
            unit: 'W',
            label: 'surge, wanted',
            note: i.gives.surgeW === null ? undefined : `gives ${num(i.gives.surgeW)} W`,
            testid: 'required-surge',
          },
          {
            ptr: '/inverter/gives/headroom',
            unit: 'fraction',
            label: 'headroom',
            note:
              i.gives.derate !== null && i.gives.derate < 1
                ? `${num(i.gives.derate * 100)} % left by the heat`
                : undefined,
            testid: 'headroom',
          },
          {
            ptr: '/currents/inverterNominalA',
            unit: 'A',
            label: `inverter, ${sayVolts(e.voltage!.nominalV)}`,
            testid: 'inverter-nominal-a',
          },
          {
            ptr: '/currents/inverterWorstA',
            unit: 'A',
            label: `inverter at full load, ${sayVolts(e.voltage!.lowV)}`,
            testid: 'inverter-worst-a',
          },
          { ptr: '/energy/idleWh', unit: 'Wh', label: 'idling, a day' },
          ...(e.envelope?.surgeEndV
            ? [
                {
                  ptr: '/envelope/surgeEndV',
                  unit: 'V',
                  label: 'left at the start',
                  note: e.envelope.cutOffV === null ? undefined : `cuts off at ${num(e.envelope.cutOffV, 1)}`,
                  testid: 'surge-end-v',
                },
              ]
            : []),
          ...(e.loads.peakVa > e.loads.peakAcW * 1.001
            ? [{ ptr: '/loads/peakVa', unit: 'VA', label: 'apparent, at once', testid: 'peak-va' }]
            : []),
        ]}
      />
    </div>
    {#if i.item && e.envelope}
      <div class="envelope">
        <Envelope />
        <AsTable
          heads={['what', 'watts', 'for', 'gives']}
          rows={[]}
          plain={[
            ...i.demands.map((d) => [
              d.label,
              `${num(d.watts)} W`,
              say(d.seconds, 's'),
              `${num(d.givesW)} W, the inverter`,
            ]),
            ...e.envelope.holds.map((h) => [
              `${h.name} holds`,
              `${num(e!.envelope!.askedW)} W`,
              h.seconds === null ? 'continuously' : say(h.seconds, 's'),
              h.continuousW === null ? '–' : `${num(h.continuousW)} W continuous`,
            ]),
          ]}
        />
      </div>
    {/if}
  {:else if choice === null}
    <p class="note mt-3">This bank feeds DC loads only. Choose an inverter above if AC is wanted.</p>
  {/if}
  {#if i?.item && i.item.continuousW >= 1000}
    <p class="caution">
      Pre-charge it through a resistor before the main switch closes: the inrush welds contacts. AC side, bonding,
      residual-current protection: a licensed electrician, by local rules.
    </p>
  {/if}
{/if}

<style>
  .envelope {
    position: relative;
    display: flex;
    flex-direction: column;
    flex: 1 1 auto;
  }
  /* The axis leaves paper at its left. */
  .envelope :global(details:not([open])) {
    position: absolute;
    left: 0;
    bottom: 0;
  }
  .controls {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 10px;
    margin-top: 6px;
    align-items: flex-end;
  }
</style>
