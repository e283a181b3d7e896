<script lang="ts">
  import { api } from '../../api/client'
  import type { InverterItem } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import ItemForm from '../../ui/ItemForm.svelte'
  import type { ItemField, Trouble, Values } from '../../ui/itemForm'
  import { say } from '../../ui/quantity'
  import { readPoints } from './points'

  /** An inverter of one's own, from its data sheet: five things first, and what else is known. */
  let { open = $bindable(false), onkept }: { open: boolean; onkept: (item: InverterItem) => void } = $props()
  let dialog: HTMLDialogElement
  const assumed = $derived(session.reference!.assumed)
  const more = 'How it runs'
  const body = 'Price and mass'
  const fields = $derived<ItemField[]>([
    { key: 'name', label: 'name', kind: 'text', needed: true, example: 'shed 3 kW', pointer: '/name' },
    {
      key: 'volts',
      label: 'system volts',
      kind: 'voltage',
      needed: true,
      example: '12, 24 or 48 V',
      pointer: '/systemV',
      fits: Number.isInteger,
    },
    { key: 'watts', label: 'continuous watts', kind: 'power', needed: true, example: '3 kW', pointer: '/continuousW' },
    { key: 'surge', label: 'surge watts', kind: 'power', needed: true, example: '6 kW', pointer: '/surgeW' },
    { key: 'charger', label: 'charger in it, amperes', kind: 'current', left: 'no charger', pointer: '/chargerA' },
    {
      key: 'seconds',
      label: 'surge lasts',
      kind: 'seconds',
      group: more,
      left: `${say(assumed.surgeSeconds, 's')} assumed`,
      pointer: '/surgeSeconds',
    },
    {
      key: 'efficiency',
      label: 'efficiency',
      kind: 'share',
      group: more,
      left: `${say(assumed.efficiency, 'fraction')} assumed`,
      pointer: '/efficiency',
      fits: (v) => v >= 0.5 && v <= 1,
    },
    {
      key: 'idle',
      label: 'idle draw, watts',
      kind: 'power',
      group: more,
      left: `${say(assumed.idleShare, 'fraction')} of its watts assumed`,
      pointer: '/idleW',
    },
    {
      key: 'cutOff',
      label: 'cuts off at, volts',
      kind: 'voltage',
      group: more,
      left: 'not known',
      pointer: '/cutOffV',
    },
    {
      key: 'overload',
      label: 'overload points',
      kind: 'text',
      group: more,
      left: 'none: such as 0.5 s 6000 W; 5 s 4500 W',
      pointer: '/overload',
    },
    { key: 'price', label: 'price', kind: 'number', group: body, left: 'not known', pointer: '/price' },
    { key: 'mass', label: 'mass, kg', kind: 'number', group: body, left: 'not known', pointer: '/massKg' },
  ])
  let texts = $state<Record<string, string>>({})
  let waveform = $state<InverterItem['waveform']>('sine')
  $effect(() => {
    if (!open) {
      dialog.close()
      return
    }
    texts = { volts: String(session.result?.voltage?.systemV ?? 12) }
    waveform = 'sine'
    dialog.showModal()
  })

  function check(v: Values): Record<string, Trouble> {
    const wrong: Record<string, Trouble> = {}
    if ((v.surge as number) < (v.watts as number)) wrong.surge = { reason: 'must not be below the continuous watts' }
    const points = readPoints(texts.overload ?? '')
    if ('reason' in points) wrong.overload = points
    return wrong
  }

  async function keep(v: Values) {
    const number = (key: string) => v[key] as number | null
    const points = readPoints(texts.overload ?? '')
    const key = `own-${Date.now().toString(36)}`
    const watts = number('watts')!
    const item: InverterItem = {
      key,
      name: v.name as string,
      systemV: number('volts')!,
      continuousW: watts,
      surgeW: number('surge')!,
      surgeSeconds: number('seconds'),
      surgeHot: false,
      efficiency: number('efficiency') ?? assumed.efficiency,
      idleW: number('idle') ?? Number((watts * assumed.idleShare).toFixed(6)),
      overload: 'points' in points ? points.points : [],
      derate: null,
      waveform,
      chargerA: number('charger'),
      cutOffV: number('cutOff'),
      price: number('price'),
      massKg: number('mass'),
    }
    await api.keepInverter(key, item)
    onkept(item)
    open = false
  }
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (open = false)} aria-labelledby="own-inverter-title">
  <div class="modal-box border border-(--ink) max-w-2xl">
    <h2 id="own-inverter-title" class="headline">An inverter of my own</h2>
    <p class="note mt-1">From its data sheet. It is kept for other designs too.</p>
    {#if open}
      <ItemForm {fields} bind:texts {check} onkeep={keep} onleave={() => (open = false)} leave="Leave it">
        {#snippet first()}
          <div class="field">
            <label class="caption" for="own-wave">wave</label>
            <select id="own-wave" class="select select-xs w-full" bind:value={waveform}
              ><option value="sine">sine</option><option value="modified">modified</option></select
            >
          </div>
        {/snippet}
      </ItemForm>
    {/if}
  </div>
</dialog>
