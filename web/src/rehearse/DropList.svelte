<script lang="ts">
  import type { Drop } from '../api/client'
  import { session } from '../app/session.svelte'
  import ChoiceField from '../ui/ChoiceField.svelte'
  import QuantityField from '../ui/QuantityField.svelte'
  import { stringName } from '../ui/quantity'
  import Weekdays from '../ui/Weekdays.svelte'
  import { year } from './year.svelte'

  /** What is dropped on the days, typed: from when, to when, how much. */
  const words: Record<Drop['kind'], string> = {
    weather: 'weather',
    string: 'a string opens',
    fuse: 'the main fuse opens',
    charger: 'a charger fails',
    inverter: 'the inverter is left on',
    guest: 'a guest’s load',
    cold: 'cold cells',
    plug: 'the plug is forgotten',
  }
  const strings = $derived(session.result?.bank?.layout.parallel ?? 1)
  const mine = $derived(
    year.drops
      .map((d, i) => ({ d, i }))
      .filter(({ d }) => (d.bank === null ? session.bankIndex === 0 : d.bank === session.bank?.id)),
  )
</script>

{#if mine.length > 0}
  <details class="list" open={mine.length < 5}>
    <summary>What is dropped <span class="caption">{mine.length}</span></summary>
    {#each mine as { d, i } (i)}
      <div class="drop" data-typed-drop={i}>
        <b>{words[d.kind]}</b>
        <label
          ><span class="caption">from</span><input
            type="datetime-local"
            value={d.from}
            step="900"
            onchange={(e) => e.currentTarget.value && year.change(i, { from: e.currentTarget.value.slice(0, 16) })}
          /></label
        >
        <label
          ><span class="caption">to</span><input
            type="datetime-local"
            value={d.to}
            step="900"
            onchange={(e) => e.currentTarget.value && year.change(i, { to: e.currentTarget.value.slice(0, 16) })}
          /></label
        >
        {#if d.kind === 'weather'}
          <QuantityField
            label="of the usual sky"
            kind="share"
            path="/rehearsal/drops/{i}/value"
            placeholder="25 %"
            whole
            width="74px"
          />
        {:else if d.kind === 'guest'}
          <QuantityField
            label="watts, AC"
            kind="power"
            path="/rehearsal/drops/{i}/value"
            placeholder="0 W"
            whole
            width="84px"
          />
        {:else if d.kind === 'cold'}
          <QuantityField
            label="cells, °C"
            kind="number"
            path="/rehearsal/drops/{i}/value"
            placeholder="−5"
            whole
            width="64px"
          />
        {:else if d.kind === 'string'}
          <ChoiceField
            label="which"
            value={String(d.string ?? 1)}
            options={Array.from({ length: strings }, (_, s) => ({
              value: String(s + 1),
              text: `string ${stringName(s + 1)}`,
            }))}
            width="104px"
            onpick={(v) => year.change(i, { string: Number(v ?? 1) })}
          />
        {:else if d.kind === 'charger'}
          <ChoiceField
            label="which"
            value={d.source ?? session.bank!.sources[0]?.id ?? null}
            options={session.bank!.sources.map((s) => ({ value: s.id, text: s.name || s.kind }))}
            width="150px"
            onpick={(v) => year.change(i, { source: v })}
          />
        {/if}
        <Weekdays days={d.weekdays} onpick={(weekdays) => year.change(i, { weekdays })} />
        <button type="button" class="link-copper" onclick={() => year.setDrops(year.drops.filter((_, n) => n !== i))}
          >take out</button
        >
      </div>
    {/each}
  </details>
{/if}

<style>
  .list {
    margin-top: 6px;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 26px;
  }
  .drop {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 2px 10px;
    padding: 2px 0;
    border-top: 1px solid var(--hair);
  }
  .drop b {
    min-width: 140px;
    font-weight: 600;
    padding-bottom: 5px;
  }
  .drop > label {
    display: inline-flex;
    flex-direction: column;
  }
  .drop > label > input {
    font: inherit;
    font-size: 13px;
    border: 1px solid var(--ink-3);
    background: var(--sheet);
    color: var(--ink);
    height: 26px;
    padding: 0 4px;
  }
  .link-copper {
    min-height: 26px;
  }
  @media (max-width: 939px) {
    summary,
    .drop > label > input,
    .link-copper {
      min-height: 44px;
    }
  }
</style>
