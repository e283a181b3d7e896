<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import { session } from '../../app/session.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { ac } from './ac.svelte'
  import { isSwitch, nameOf, positionName, positionsOf } from './acLayout'
  import type { AcPart } from './acLayout'

  /** The part in hand: what it is called, what it bears, where it is wired to. */
  let { part }: { part: AcPart } = $props()
  const parts = $derived(ac.drawing.parts)
  const of = (id: string) => parts.find((p) => p.id === id)
  const wires = $derived(
    ac.drawing.wires.map((w, index) => ({ w, index })).filter(({ w }) => w.from === part.id || w.to === part.id),
  )
  const others = $derived(parts.filter((p) => p.id !== part.id))
  const at = $derived(`/acSide/parts/${parts.findIndex((p) => p.id === part.id)}`)
  const banks = $derived(session.design!.banks)
  const bank = $derived(banks.find((b) => b.id === part.bank) ?? (banks.length === 1 ? banks[0] : null))
  const acLoads = $derived(banks.flatMap((b) => b.demand.loads.filter((l) => l.kind === 'ac')))
  let to = $state('')
  const target = $derived(others.some((p) => p.id === to) ? to : (others[0]?.id ?? ''))
  function connect() {
    // Power flows from what feeds: a supply never stands at the end of a wire.
    const [from, last] =
      of(target)?.kind === 'circuit' || of(target)?.kind === 'charger' ? [part.id, target] : [target, part.id]
    const backward = part.kind === 'plug' || part.kind === 'generator' || part.kind === 'inverter'
    const [a, b] = backward ? [part.id, target] : [from, last]
    // Into a switch at the first position that is free; out of it always.
    const end = of(b)
    const taken = new Set(ac.drawing.wires.filter((w) => w.to === b).flatMap((w) => w.toAt))
    const free =
      end && isSwitch(end)
        ? Array.from({ length: positionsOf(end) }, (_, i) => i + 1).find((n) => !taken.has(n))
        : undefined
    ac.put({ wires: [...ac.drawing.wires, { from: a, to: b, fromAt: [], toAt: free ? [free] : [] }] })
  }
  function toggle(id: string) {
    ac.change(part.id, {
      loads: part.loads.includes(id) ? part.loads.filter((l) => l !== id) : [...part.loads, id],
    })
  }
  const ampsWord = $derived(part.kind === 'charger' ? 'at its bank' : isSwitch(part) ? 'contacts carry' : 'breaker')
</script>

<section class="hand" aria-label="Part in hand" data-testid="ac-part">
  <div class="row">
    <label
      ><span class="caption">{part.kind}</span><input
        class="input input-xs"
        maxlength="60"
        placeholder={part.kind}
        value={part.name}
        onchange={(e) => ac.change(part.id, { name: e.currentTarget.value })}
      /></label
    >
    {#key part.id}
      {#if part.kind !== 'inverter' && part.kind !== 'generator'}
        <QuantityField label={ampsWord} kind="current" path="{at}/amps" whole placeholder="not said" width="76px" />
      {/if}
      {#if part.kind === 'generator' || part.kind === 'circuit'}
        <QuantityField
          label={part.kind === 'generator' ? 'for hours' : 'further watts'}
          kind="power"
          path="{at}/watts"
          whole
          placeholder={part.kind === 'generator' ? 'not said' : 'none'}
          width="86px"
        />
      {/if}
    {/key}
    {#if isSwitch(part)}<label class="grow"
        ><span class="caption">positions, with commas</span><input
          class="input input-xs w-full"
          value={part.positions.join(', ')}
          onchange={(e) => {
            const names = e.currentTarget.value
              .split(',')
              .map((n) => n.trim())
              .filter(Boolean)
              .slice(0, 8)
            if (names.length > 1) ac.change(part.id, { positions: names })
          }}
        /></label
      >{/if}
    {#if part.kind === 'inverter' || part.kind === 'charger'}
      {#if banks.length > 1}<label
          ><span class="caption">of the bank</span><select
            class="select select-xs"
            value={part.bank}
            onchange={(e) => ac.change(part.id, { bank: e.currentTarget.value, item: null })}
            >{#each banks as b (b.id)}<option value={b.id}>{b.name || b.id}</option>{/each}</select
          ></label
        >{/if}
      <label
        ><span class="caption">which of the design</span><select
          class="select select-xs"
          value={part.item ?? ''}
          onchange={(e) => ac.change(part.id, { item: e.currentTarget.value || null })}
        >
          <option value="">not said</option>
          {#if part.kind === 'inverter'}{#each bank?.inverters ?? [] as x, i (x.id)}<option value={x.id}
                >{x.item?.name ?? `inverter ${i + 1}`}</option
              >{/each}{:else}{#each (bank?.sources ?? []).filter((x) => x.kind === 'mains' || x.kind === 'generator') as x (x.id)}<option
                value={x.id}>{x.name || x.id}</option
              >{/each}{/if}
        </select></label
      >
    {/if}
    {#if part.kind === 'inverter'}<label
        ><span class="caption">in step with (a name)</span><input
          class="input input-xs w-24"
          maxlength="40"
          value={part.group ?? ''}
          onchange={(e) => ac.change(part.id, { group: e.currentTarget.value.trim() || null })}
        /></label
      >{/if}
    {#if ac.drawing.legs === 'split'}<label
        ><span class="caption">leg</span><select
          class="select select-xs"
          value={part.leg}
          onchange={(e) => ac.change(part.id, { leg: e.currentTarget.value as AcPart['leg'] })}
        >
          <option value="both">both</option><option value="one">one</option><option value="two">two</option>
        </select></label
      >{/if}
    <button
      type="button"
      class="btn btn-ghost btn-xs btn-square"
      aria-label="Take {nameOf(part)} out"
      onclick={() => ac.take(part.id)}><X size={14} /></button
    >
  </div>
  {#if part.kind === 'circuit' && acLoads.length > 0}
    <div class="loads" role="group" aria-label="Loads on it">
      {#each acLoads as load (load.id)}
        <label
          ><input
            type="checkbox"
            class="checkbox checkbox-xs"
            checked={part.loads.includes(load.id)}
            onchange={() => toggle(load.id)}
          />
          {load.name}</label
        >
      {/each}
    </div>
  {/if}
  <ul>
    {#each wires as { w, index } (index)}
      {@const other = of(w.from === part.id ? w.to : w.from)}
      {@const switched = [
        { end: of(w.from), key: 'fromAt' as const, at: w.fromAt },
        { end: of(w.to), key: 'toAt' as const, at: w.toAt },
      ].filter((x) => x.end && isSwitch(x.end))}
      <li>
        <span>{w.from === part.id ? 'feeds' : 'fed by'} <b>{other ? nameOf(other) : '?'}</b></span>
        {#each switched as s (s.key)}
          <label
            ><span class="sr-only">position of {nameOf(s.end!)}</span><select
              class="select select-xs"
              data-wire-at={`${w.from} ${w.to}`}
              value={s.at.length > 0 ? String(s.at[0]) : ''}
              onchange={(e) =>
                ac.wire(index, { [s.key]: e.currentTarget.value === '' ? [] : [Number(e.currentTarget.value)] })}
            >
              <option value="">{nameOf(s.end!)}: always</option>
              {#each Array.from({ length: positionsOf(s.end!) }, (_, i) => i + 1) as n (n)}<option value={String(n)}
                  >{nameOf(s.end!)} at {positionName(s.end!, n)}</option
                >{/each}
            </select></label
          >
        {/each}
        <button
          type="button"
          class="btn btn-ghost btn-xs btn-square"
          aria-label="Take the wire to {other ? nameOf(other) : ''} out"
          onclick={() => ac.wire(index, null)}><X size={13} /></button
        >
      </li>
    {/each}
  </ul>
  {#if others.length > 0}
    <div class="row">
      <label
        ><span class="caption">wire it to</span><select
          class="select select-xs"
          value={target}
          data-testid="ac-target"
          onchange={(e) => (to = e.currentTarget.value)}
          >{#each others as p (p.id)}<option value={p.id}>{nameOf(p)}</option>{/each}</select
        ></label
      >
      <button type="button" class="btn btn-outline btn-xs" onclick={connect}>Wire it</button>
    </div>
  {/if}
</section>

<style>
  .hand {
    border: 1px solid var(--copper);
    background: var(--tint);
    padding: 6px 10px;
    margin-top: 6px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 10px;
    align-items: flex-end;
  }
  .row label {
    display: inline-flex;
    flex-direction: column;
  }
  .grow {
    flex: 1 1 160px;
  }
  .loads {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    margin-top: 4px;
    font-size: 12.5px;
  }
  .loads label {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    min-height: 24px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    align-items: center;
    font-size: 12.5px;
    min-height: 28px;
  }
  @media (max-width: 939px) {
    .hand :is(input:not([type='checkbox']), select, button) {
      min-height: 44px;
    }
    .loads label {
      min-height: 44px;
    }
  }
</style>
