<script lang="ts">
  import type { BringUpStep } from '../api/client'
  import { readNumber } from '../ui/written'
  import { bringUp } from './bringup.svelte'

  /** The worksheet of a capacity test: what went out, in how long, how warm; it is worked out once it is kept. */
  interface Props {
    step: BringUpStep
  }
  let { step }: Props = $props()

  type Amount = 'ah' | 'dcWh' | 'acWh'
  const AMOUNTS: [Amount, string][] = [
    ['ah', 'Ah at the bank'],
    ['dcWh', 'Wh at the bank'],
    ['acWh', 'Wh at the outlet'],
  ]
  let by = $state<Amount>('ah')
  let [amount, hours, mean, warm] = $state(['', '', '', ''])
  let early = $state(false)
  let supply = $state<'apart' | 'inverter'>('apart')

  const number = (text: string) => {
    const n = readNumber(text)
    return n && n.rest === '' ? n.value : null
  }
  const within = (text: string, low: number, high: number) => {
    const n = number(text)
    return n !== null && n >= low && n <= high
  }
  const slip = $derived(
    !within(amount, 0.001, 1_000_000)
      ? 'how much went out?'
      : !within(hours, 0.01, 10_000)
        ? 'in how many hours?'
        : mean !== '' && !within(mean, 1, 1000)
          ? 'the mean volts are a number of volts, or left empty'
          : warm !== '' && !within(warm, -20, 60)
            ? 'the bank’s warmth lies from −20 to 60 °C, or is left empty'
            : null,
  )
  function keep() {
    if (slip) return
    bringUp.write(step.key, step.sign, 'read', {
      capacity: {
        [by]: number(amount),
        hours: number(hours)!,
        ...(mean === '' ? {} : { meanV: number(mean) }),
        ...(warm === '' ? {} : { temperatureC: number(warm) }),
        stoppedEarly: early,
        supply,
      } as NonNullable<Parameters<typeof bringUp.write>[3]>['capacity'],
    })
  }
</script>

<form
  class="sheet"
  data-testid="capacity"
  onsubmit={(e) => {
    e.preventDefault()
    keep()
  }}
>
  <div class="row" role="group" aria-label="Measured as">
    {#each AMOUNTS as [id, word] (id)}<label
        ><input type="radio" class="radio" name="amount" value={id} bind:group={by} /> {word}</label
      >{/each}
  </div>
  <label class="field"
    ><span>went out, {AMOUNTS.find(([id]) => id === by)![1]}</span><input
      class="input fig"
      inputmode="decimal"
      autocomplete="off"
      bind:value={amount}
    /></label
  >
  <label class="field"
    ><span>in, h</span><input class="input fig" inputmode="decimal" autocomplete="off" bind:value={hours} /></label
  >
  <label class="field"
    ><span>mean volts, if known</span><input
      class="input fig"
      inputmode="decimal"
      autocomplete="off"
      bind:value={mean}
    /></label
  >
  <label class="field"
    ><span>the bank had, °C</span><input
      class="input fig"
      inputmode="decimal"
      placeholder="25"
      autocomplete="off"
      bind:value={warm}
    /></label
  >
  <label class="tick"><input type="checkbox" class="checkbox" bind:checked={early} /> stopped before the cut-off</label>
  <label class="tick"
    ><input
      type="checkbox"
      class="checkbox"
      checked={supply === 'inverter'}
      onchange={(e) => (supply = e.currentTarget.checked ? 'inverter' : 'apart')}
    /> the meter was fed by the inverter, and went out with it</label
  >
  <p class="caption">
    {#if step.sheet}on the plates {step.sheet.ratedAh} Ah at {step.sheet.nominalV.toFixed(1)} V{by === 'acWh'
        ? `; the inverter gives ${(100 * step.sheet.inverterEfficiency).toFixed(0)} % of what it takes`
        : ''}{/if}
  </p>
  <div class="acts">
    <button type="submit" class="btn btn-primary" disabled={slip !== null}>Work it out</button>
    {#if slip}<span class="caption">{slip}</span>{/if}
  </div>
</form>

<style>
  .sheet {
    display: grid;
    gap: 6px;
    max-width: 420px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
  }
  .field {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 130px;
    align-items: center;
    gap: 8px;
  }
  .tick {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 28px;
  }
  .radio {
    accent-color: var(--ink);
  }
  .acts {
    display: flex;
    gap: 12px;
    align-items: center;
  }
  @media (max-width: 939px) {
    .input {
      height: 44px;
      font-size: 18px;
    }
    .row label,
    .tick {
      min-height: 44px;
      display: flex;
      align-items: center;
      gap: 8px;
    }
    .btn {
      min-height: 48px;
      flex: 1;
    }
  }
</style>
