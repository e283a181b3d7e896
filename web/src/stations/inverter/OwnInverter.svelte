<script lang="ts">
  import { api, Refused } from '../../api/client'
  import type { InverterItem } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { parse } from '../../ui/quantity'
  import type { Kind } from '../../ui/quantity'

  /** An inverter of one's own, from its data sheet. */
  let { open = $bindable(false), onkept }: { open: boolean; onkept: (item: InverterItem) => void } = $props()
  let dialog: HTMLDialogElement
  let told = $state('')
  const empty = {
    name: '',
    volts: '',
    watts: '',
    surge: '',
    seconds: '5 s',
    efficiency: '90 %',
    idle: '',
    overload: '',
    cutOff: '',
    charger: '',
    price: '',
    mass: '',
    waveform: 'sine',
  }
  let f = $state({ ...empty })
  $effect(() => {
    if (!open) {
      dialog.close()
      return
    }
    f = { ...empty, volts: String(session.result?.voltage?.systemV ?? 12) }
    told = ''
    dialog.showModal()
  })

  const fields: { key: Exclude<keyof typeof empty, 'waveform'>; label: string; hint: string }[] = [
    { key: 'name', label: 'name', hint: 'as you will find it again' },
    { key: 'volts', label: 'system volts', hint: '12, 24, 48' },
    { key: 'watts', label: 'continuous', hint: '3 kW' },
    { key: 'surge', label: 'surge', hint: '6 kW' },
    { key: 'seconds', label: 'surge lasts', hint: '5 s' },
    { key: 'efficiency', label: 'efficiency', hint: '92 %' },
    { key: 'idle', label: 'idle draw', hint: '20 W' },
    { key: 'cutOff', label: 'cuts off at', hint: '21 V, if known' },
    { key: 'charger', label: 'charger in it', hint: '70 A, or none' },
    { key: 'price', label: 'price', hint: 'if known' },
    { key: 'mass', label: 'mass, kg', hint: 'if known' },
  ]

  function number(key: keyof typeof empty, kind: Kind, optional = false): number | null {
    const text = f[key].trim()
    if (text === '' && optional) return null
    const parsed = parse(text, kind)
    if ('reason' in parsed)
      throw new Error(`${fields.find((x) => x.key === key)!.label}: ${text ? parsed.reason : 'is missing'}`)
    return parsed.value
  }

  /** `0.5 s 6000 W, 5 s 4500 W`: seconds and watts, the seconds rising and the watts falling. */
  function points() {
    return f.overload
      .split(/[,;]/)
      .map((p) => p.trim())
      .filter(Boolean)
      .map((p) => {
        const match = /^([\d.]+)\s*(s|sec|min|h)\s*:?\s*([\d.]+)\s*(k?w)$/i.exec(p)
        if (!match) throw new Error(`overload: “${p}” is not a point such as 5 s 4500 W`)
        const unit = match[2].toLowerCase()
        return {
          seconds: Number(match[1]) * (unit === 'min' ? 60 : unit === 'h' ? 3600 : 1),
          watts: Number(match[3]) * (match[4].toLowerCase() === 'kw' ? 1000 : 1),
        }
      })
  }

  async function keep() {
    try {
      const key = `own-${Date.now().toString(36)}`
      const item: InverterItem = {
        key,
        name: f.name.trim(),
        systemV: number('volts', 'voltage')!,
        continuousW: number('watts', 'power')!,
        surgeW: number('surge', 'power')!,
        surgeSeconds: number('seconds', 'seconds', true),
        surgeHot: false,
        efficiency: number('efficiency', 'share')!,
        idleW: number('idle', 'power')!,
        overload: points(),
        derate: null,
        waveform: f.waveform as InverterItem['waveform'],
        chargerA: number('charger', 'current', true),
        cutOffV: number('cutOff', 'voltage', true),
        price: number('price', 'number', true),
        massKg: number('mass', 'number', true),
      }
      if (item.surgeW < item.continuousW) throw new Error('surge: is not below the continuous watts')
      await api.keepInverter(key, item)
      onkept(item)
      open = false
    } catch (e) {
      told =
        e instanceof Refused && e.faults[0]
          ? `${e.faults[0].pointer.slice(1)} ${e.faults[0].reason}`
          : (e as Error).message
    }
  }
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (open = false)} aria-labelledby="own-inverter-title">
  <div class="modal-box border border-(--ink) max-w-2xl">
    <h2 id="own-inverter-title" class="headline">An inverter of my own</h2>
    <p class="note mt-1">From its data sheet. It is kept for other designs too.</p>
    <div class="grid grid-cols-2 sm:grid-cols-4 gap-x-3 gap-y-2 mt-3">
      {#each fields as field (field.key)}
        <label class="flex flex-col gap-px"
          ><span class="caption">{field.label}</span><input
            class="input input-xs w-full"
            placeholder={field.hint}
            autocomplete="off"
            data-own={field.key}
            bind:value={f[field.key]}
          /></label
        >
      {/each}
      <label class="flex flex-col gap-px"
        ><span class="caption">wave</span><select class="select select-xs w-full" bind:value={f.waveform}
          ><option value="sine">sine</option><option value="modified">modified</option></select
        ></label
      >
      <label class="flex flex-col gap-px col-span-2 sm:col-span-4"
        ><span class="caption">overload points, where the sheet has them</span><input
          class="input input-xs w-full"
          placeholder="0.5 s 6000 W, 5 s 4500 W, 1 min 3600 W"
          autocomplete="off"
          data-own="overload"
          bind:value={f.overload}
        /></label
      >
    </div>
    <p class="note mt-2" role="alert">{told}</p>
    <div class="modal-action">
      <button type="button" class="btn btn-outline btn-sm" onclick={() => (open = false)}>Leave it</button>
      <button type="button" class="btn btn-primary btn-sm" onclick={keep}>Keep and use it</button>
    </div>
  </div>
</dialog>
