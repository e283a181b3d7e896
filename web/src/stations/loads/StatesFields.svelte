<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import { answer, fieldText, parse, say } from '../../ui/quantity'
  import QuantityField from '../../ui/QuantityField.svelte'
  import TypedField from '../../ui/TypedField.svelte'

  /** A load with states, such as receive and transmit: amperes of each, and the share of the time it is in it. */
  interface State {
    name: string
    amps: number
    share: number
  }
  interface Props {
    states: State[]
    /** Where the list stands in the bank's document. */
    path: string
    /** Row of the Evaluation. */
    row: number
  }
  let { states, path, row }: Props = $props()

  function put(next: State[], commit = false) {
    session.edit({ path: `~${path}`, value: next }, commit)
  }

  /** The others give way in proportion, so that the shares always make a whole. */
  function share(index: number, wanted: number): State[] {
    const rest = states.reduce((sum, s, i) => (i === index ? sum : sum + s.share), 0)
    const next = states.map((s, i) =>
      i === index
        ? { ...s, share: wanted }
        : { ...s, share: rest > 0 ? (s.share * (1 - wanted)) / rest : (1 - wanted) / (states.length - 1) },
    )
    return next.map((s) => ({ ...s, share: Number(s.share.toFixed(9)) }))
  }

  function readShare(index: number, typed: string) {
    const refused = (v: number) =>
      v < 0 || v > 1
        ? 'a share lies between 0 and 100 %'
        : states.length === 1 && v !== 1
          ? 'one state alone is on all the time: add another'
          : null
    const parsed = parse(typed, 'share', 'metric', (v) => refused(v) === null)
    const reason = 'value' in parsed ? refused(parsed.value) : null
    return reason
      ? { reason }
      : answer(
          parsed,
          (v) => fieldText(v, 'share', 'metric'),
          (v) => put(share(index, v)),
        )
  }

  function add() {
    put(
      [...states, { name: states.length === 0 ? 'receive' : 'transmit', amps: 0, share: states.length === 0 ? 1 : 0 }],
      true,
    )
  }

  function remove(index: number) {
    const left = states.filter((_, i) => i !== index)
    const sum = left.reduce((total, s) => total + s.share, 0)
    put(
      left.map((s) => ({ ...s, share: Number((sum > 0 ? s.share / sum : 1 / left.length).toFixed(9)) })),
      true,
    )
  }
</script>

<div class="states" role="group" aria-label="States">
  {#each states as state, i (i)}
    <div class="state">
      <TypedField
        label="state"
        words
        text={state.name}
        width="104px"
        path="{path}/{i}/name"
        read={(typed) => {
          if (typed.length > 80) return { reason: '80 characters at most' }
          put(states.map((s, n) => (n === i ? { ...s, name: typed } : s)))
          return {}
        }}
        snapshot={() => [{ path: `~${path}`, value: states }]}
      />
      <QuantityField label="draws" kind="current" path="{path}/{i}/amps" width="74px" />
      <TypedField
        label="of the time"
        text={fieldText(state.share, 'share', 'metric')}
        width="70px"
        path="{path}/{i}/share"
        read={(typed) => readShare(i, typed)}
        snapshot={() => [{ path: `~${path}`, value: states }]}
      />
      {#if states.length > 1}
        <button
          type="button"
          class="btn btn-ghost btn-xs btn-square self-end"
          aria-label="Remove the state {state.name}"
          onclick={() => remove(i)}><X size={14} /></button
        >
      {/if}
    </div>
  {/each}
  <button type="button" class="btn btn-outline btn-xs self-end" onclick={add}>Add a state</button>
  {#if states.length > 0}
    <span class="self-end note"
      >mean <Fig ptr="/loads/rows/{row}/states/meanAmps" unit="A" label="mean of its states" size={15} />, greatest
      <Fig ptr="/loads/rows/{row}/states/maxAmps" unit="A" label="greatest of its states" size={15} /></span
    >
  {/if}
</div>

<style>
  .states {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
  }
  .state {
    display: flex;
    gap: 4px;
  }
</style>
