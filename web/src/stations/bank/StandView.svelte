<script lang="ts">
  import { untrack } from 'svelte'
  import { session } from '../../app/session.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import Fig from '../../ui/Fig.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { num, stringName } from '../../ui/quantity'
  import NameField from '../charging/NameField.svelte'
  import { stand } from './stand.svelte'
  import StandAbove from './StandAbove.svelte'
  import StandWeight from './StandWeight.svelte'

  /** Where the bank stands: its compartment, the units in it, what is short, and what they weigh where. */
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => stand.reset())
  })
  const room = $derived(stand.document)
  const here = $derived(stand.here)
  const at = $derived(`/compartments/${stand.room}`)
  const ptr = $derived(`/stands/compartments/${stand.room}`)
  const hand = $derived(stand.inHand)
  const name = (u: { string: number; unit: number }) => `${stringName(u.string)}${u.unit}`
  const lids = [
    { value: 'open', text: 'none' },
    { value: 'wood', text: 'wood' },
    { value: 'steel', text: 'steel' },
  ]
  const table = $derived(
    (here?.units ?? []).map((u) => [
      name(u),
      num(u.xMm),
      num(u.yMm),
      `${num(u.lengthMm)} × ${num(u.widthMm)} × ${num(u.heightMm)}`,
      u.into ? `in ${u.into}` : u.overMm > 0 ? `${num(u.overMm)} mm out` : 'fits',
    ]),
  )
</script>

{#if !stand.result}
  <p class="note mt-2">The units’ size is not known: give it at their data sheet (Stock, own units) first.</p>
{:else if !room || !here}
  <p class="mt-2">Nobody has said where this bank stands. The units alone need:</p>
  <ul class="needs" data-testid="needs">
    {#each stand.result.needs as n (n.rows)}
      <li>
        <b class="fig">{num(n.lengthMm)} × {num(n.widthMm)} × {num(n.heightMm)} mm</b>
        <span class="caption">in {n.rows === 1 ? 'one row' : `${n.rows} rows`}, walls and a wooden lid in it</span>
      </li>
    {:else}<li class="caption">They are of several sizes: give a compartment, and they are set into it.</li>{/each}
  </ul>
  <button type="button" class="btn btn-primary btn-sm mt-2" onclick={() => stand.add()}>Give it a compartment</button>
{:else}
  <div class="fields">
    {#if stand.rooms.length > 1}
      <ChoiceField
        label="compartment"
        value={String(stand.room)}
        options={stand.rooms.map((c, i) => ({ value: String(i), text: c.name || c.id }))}
        width="150px"
        onpick={(v) => stand.pick(Number(v))}
      />
    {/if}
    {#key stand.room}
      <NameField label="it stands in" path="{at}/name" value={room.name} width="150px" />
      <QuantityField label="long, mm" kind="number" path="{at}/lengthMm" width="66px" />
      <QuantityField label="deep, mm" kind="number" path="{at}/widthMm" width="62px" />
      <QuantityField label="high, mm" kind="number" path="{at}/heightMm" width="62px" />
      <ChoiceField
        label="lid"
        value={room.lid}
        options={lids}
        width="84px"
        onpick={(v) => session.edit({ path: `~${at}/lid`, value: v }, true)}
      />
      <QuantityField label="air below it" kind="number" path="{at}/airMm" advised={here.room.airMm} width="66px" />
      <ChoiceField
        label="links"
        value={room.flatBars ? 'bars' : 'cables'}
        options={[
          { value: 'cables', text: 'cables' },
          { value: 'bars', text: 'flat bars' },
        ]}
        width="88px"
        onpick={(v) => session.edit({ path: `~${at}/flatBars`, value: v === 'bars' }, true)}
      />
      <QuantityField label="straps" kind="count" path="{at}/straps" placeholder="–" width="52px" />
      <QuantityField label="middle forward" kind="length" path="{at}/forwardM" placeholder="not said" width="72px" />
      <QuantityField label="to the right" kind="length" path="{at}/rightM" placeholder="0 m" width="66px" />
    {/key}
  </div>
  <div class="hand" data-testid="in-hand">
    {#if hand}
      <b class="fig">{name(hand)}</b>
      <span class="caption"
        >{num(hand.xMm)} mm from the left, {num(hand.yMm)} from the far wall{hand.into
          ? `, in ${hand.into}`
          : hand.overMm > 0
            ? `, ${num(hand.overMm)} beyond the wall`
            : ''}</span
      >
      <button type="button" class="link-copper" onclick={() => stand.turn(hand)}>turn it (R)</button>
      <button type="button" class="link-copper" onclick={() => stand.put(hand, { lying: !hand.lying }, true)}
        >{hand.lying ? 'stand it up' : 'lay it on its side'}</button
      >
      {#if stand.rooms.length > 1}
        <select
          class="select select-xs h-[26px]"
          aria-label="{name(hand)} stands in"
          value={room.id}
          onchange={(e) => stand.put(hand, { compartment: e.currentTarget.value, xMm: 10, yMm: 10 }, true)}
        >
          {#each stand.rooms as c (c.id)}<option value={c.id}>{c.name || c.id}</option>{/each}
        </select>
      {/if}
      {#if hand.put}<button type="button" class="link-copper" onclick={() => stand.free([hand])}
          >back in its turn</button
        >{/if}
    {:else}
      <span class="caption">Drag a unit or press it: arrows move it, R turns it. Lead never lies.</span>
    {/if}
    {#if here.units.some((u) => u.put)}
      <button type="button" class="link-copper" onclick={() => stand.free(here.units)}>all in their turn</button>
    {/if}
    <span class="rooms">
      <button type="button" class="link-copper" onclick={() => stand.add()}>another compartment</button>
      <button type="button" class="link-copper" onclick={() => stand.remove()}>take this one out</button>
    </span>
  </div>
  <div class="both">
    <div>
      <StandAbove />
      <dl class="room" data-testid="room">
        <div>
          <dt class="caption">length left</dt>
          <dd><Fig ptr="{ptr}/room/lengthLeftMm" unit="mm" label="length left" size={15} /></dd>
        </div>
        <div>
          <dt class="caption">depth left</dt>
          <dd><Fig ptr="{ptr}/room/widthLeftMm" unit="mm" label="depth left" size={15} /></dd>
        </div>
        <div>
          <dt class="caption">over them wanted</dt>
          <dd><Fig ptr="{ptr}/room/overWantedMm" unit="mm" label="over the units wanted" size={15} /></dd>
        </div>
        <div>
          <dt class="caption">there</dt>
          <dd><Fig ptr="{ptr}/room/overThereMm" unit="mm" label="over the units there" size={15} /></dd>
        </div>
        <div>
          <dt class="caption">height left</dt>
          <dd><Fig ptr="{ptr}/room/heightLeftMm" unit="mm" label="height left" size={15} /></dd>
        </div>
        {#if here.room.gapMm !== null}
          <div>
            <dt class="caption">between units</dt>
            <dd class="fig">{num(here.room.gapMm)} mm, {num(here.room.gapAskedMm)} asked</dd>
          </div>
        {/if}
        {#if stand.result.lift}
          <div>
            <dt class="caption">heaviest lift</dt>
            <dd>
              <Fig ptr="/stands/lift/kg" unit="kg" label="heaviest unit" size={15} />
              <span class="caption"
                >{stand.result.lift.machine
                  ? 'a machine'
                  : `${stand.result.lift.people} ${stand.result.lift.people === 1 ? 'person' : 'people'}`}</span
              >
            </dd>
          </div>
        {/if}
        {#if here.hold}
          <div>
            <dt class="caption">straps, a stop of {num(here.hold.g)} g</dt>
            <dd>
              <Fig ptr="{ptr}/hold/pullN" unit="N" label="pull on the straps" size={15} />
              <span class="caption"
                >{here.hold.straps === null
                  ? `${here.hold.wanted} wanted`
                  : `of ${num(here.hold.holdsN)} N in ${here.hold.straps}`}</span
              >
            </dd>
          </div>
        {/if}
      </dl>
      {#if stand.result.without > 0}<p class="note">{stand.result.without} units stand nowhere.</p>{/if}
    </div>
    <StandWeight />
  </div>
  <AsTable heads={['unit', 'from the left, mm', 'from the far wall, mm', 'size, mm', '']} rows={[]} plain={table} />
  <p class="caution">
    Fasten every battery against a crash or a knock-down; nothing metal may fall on the posts. Lift with help over the
    figure above. Clearances, bends and straps are typical figures: makers’ instructions and local rules come first.
  </p>
{/if}

<style>
  .needs {
    margin-top: 4px;
  }
  .fields {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 2px 8px;
    margin-top: 2px;
  }
  .hand {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 12px;
    min-height: 28px;
    font-size: 12.5px;
  }
  .rooms {
    display: flex;
    gap: 12px;
    margin-left: auto;
  }
  .both > :global(*) {
    min-width: 0;
  }
  @media (min-width: 1150px) {
    .both {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 212px;
      gap: 14px;
    }
  }
  .room {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
  }
  dd {
    font-size: 14px;
  }
  @media (max-width: 939px) {
    .hand :global(.link-copper),
    .hand select {
      min-height: 44px;
    }
  }
</style>
