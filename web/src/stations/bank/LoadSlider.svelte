<script lang="ts">
  import { guessing } from '../../app/guessing.svelte'
  import { untrack } from 'svelte'
  import { session } from '../../app/session.svelte'
  import { answer, fieldText, num, parse, say } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { bench } from './bench.svelte'
  import LoadRange from './LoadRange.svelte'

  /** A load of one's choice on the bank, from none to the worst start. */
  const c = $derived(session.result?.currents)
  const full = $derived(c?.bankWorstA ?? 0)
  const surge = $derived(c?.surgeWorstA ?? 0)
  const most = $derived(Math.max(10, Math.ceil((Math.max(full, surge) * 1.1) / 10) * 10))
  const load = $derived(bench.load ?? full)

  // Another design, or another bank: nothing is tried on it yet.
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => bench.reset())
  })
  // Whatever changes in the design, the bank is asked again at the load that is looked at.
  $effect(() => {
    if (session.evaluation) void bench.ask()
  })

  function put(amps: number | null) {
    bench.load = amps
    bench.step = 0
    void bench.ask()
  }

  function read(typed: string) {
    if (typed.trim() === '') {
      put(null)
      return {}
    }
    const fits = (a: number) => a >= 0 && a <= 10_000
    const parsed = parse(typed, 'current', 'metric', fits)
    if ('value' in parsed && !fits(parsed.value)) return { reason: 'from 0 to 10,000 A' }
    return answer(parsed, (a) => fieldText(a, 'current', 'metric'), put)
  }
</script>

<div class="load">
  <LoadRange value={load} max={most} testid="bank-load" onput={put} />
  <TypedField
    label="amperes"
    text={fieldText(Number(load.toFixed(1)), 'current', 'metric')}
    {read}
    width="72px"
    path="/bench/load"
    snapshot={() => []}
  />
  {#if bench.result?.hoursToFloor}
    <span class="hours" data-testid="load-hours"
      ><b class="fig">{say(bench.result.hoursToFloor, 'h')}</b> to the floor,
      <b class="fig">{say(bench.result.hoursToEmpty!, 'h')}</b> to empty</span
    >
  {/if}
  <span class="marks">
    <button type="button" class="link-copper" onclick={() => put(null)}
      >{guessing.mask(`full load, ${num(full, 1)} A`)}</button
    >
    {#if surge > full}<button type="button" class="link-copper" onclick={() => put(Number(surge.toFixed(1)))}
        >worst start, {num(surge, 1)} A</button
      >{/if}
  </span>
</div>

<style>
  .load {
    flex: 1 1 520px;
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 4px 12px;
  }
  .hours {
    padding-bottom: 4px;
    white-space: nowrap;
  }
  .marks {
    display: inline-flex;
    flex-wrap: wrap;
    gap: 0 12px;
    font-size: 12.5px;
  }
  .marks button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    .marks button {
      min-height: 44px;
    }
  }
</style>
