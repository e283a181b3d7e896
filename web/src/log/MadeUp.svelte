<script lang="ts">
  import { num, say } from '../ui/quantity'
  import { dayOf, numberOf, today } from './days'
  import { log } from './log.svelte'

  /** A made-up monitor: a bank that lives by the rules of the rehearsal, with habits of its own. Off until somebody starts it. */
  let seed = $state(7)
  let speed = $state(60)
  let days = $state(7)
  const r = $derived(log.reading)
</script>

{#if log.live}
  <p class="live" data-testid="live">
    <span><b>simulated</b>, number {num(log.live.seed)}, ×{num(log.live.speed)}:</span>
    {#if r}
      <span class="fig" data-testid="live-at">{r.at.replace('T', ' ')}</span>
      <span class="fig">{r.soc === null ? '' : `${num(r.soc * 100, 1)} %`}</span>
      <span class="fig">{r.volts === null ? 'no volts' : say(r.volts, 'V')}</span>
      <span class="fig">{r.amps === null ? '' : say(-r.amps, 'A')}</span>
    {:else}one moment…{/if}
    <button type="button" class="btn btn-outline btn-xs" onclick={() => log.stop()}>Stop</button>
  </p>
{:else}
  <details>
    <summary class="caption">a made-up monitor, to try it on</summary>
    <p class="row">
      <label
        >number <input
          type="number"
          class="input input-xs"
          min="0"
          max="9007199254740992"
          data-testid="seed"
          value={seed}
          onchange={(e) => (seed = Math.max(0, Math.floor(Number(e.currentTarget.value) || 0)))}
        /></label
      >
      <label
        >speed <select class="select select-xs" bind:value={speed} data-testid="speed">
          {#each [1, 10, 60, 600, 3600] as s (s)}<option value={s}>×{num(s)}</option>{/each}
        </select></label
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => log.start(seed, speed)}>Start it</button>
      <span class="or">or</span>
      <label
        ><select class="select select-xs" bind:value={days} aria-label="days of it">
          {#each [7, 30, 90, 365] as d (d)}<option value={d}>{d} days</option>{/each}
        </select></label
      >
      <button
        type="button"
        class="btn btn-outline btn-sm"
        onclick={() => log.makeUp(seed, dayOf(numberOf(today()) - days), days)}>Take them in</button
      >
    </p>
    <p class="caption">
      It is plainly marked as simulated, lives by the rules of the rehearsal, and has a habit or two that the plan does
      not know. What it has read stays until you take it out.
    </p>
  </details>
{/if}

<style>
  .live,
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: center;
    font-size: 12.5px;
  }
  .row {
    margin: 4px 0;
  }
  .live {
    border: 1px dashed var(--ink-3);
    padding: 3px 8px;
    margin: 2px 0 4px;
  }
  .row input {
    width: 84px;
  }
  .row select {
    width: 92px;
  }
  .or {
    color: var(--ink-2);
  }
  @media (max-width: 939px) {
    .btn,
    select,
    input,
    summary {
      min-height: 44px;
    }
  }
</style>
