<script lang="ts">
  import type { Change } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { fuseClasses, practices } from '../../app/tables'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { parse, say } from '../../ui/quantity'
  import { newSource } from '../charging/sources'
  import { blank, docOf, ensure, hand, indexOf, pathOf, put } from './hand.svelte'
  import Modal from './Modal.svelte'

  /** What the wiring can be given more: a run of one's own, a source, a run and fuse for the inverter, and what a bank should have. */
  const e = $derived(session.result)
  const bank = $derived(session.bank!)
  let name = $state('')
  let amps = $state('')
  let source = $state('')
  let sourceAmps = $state('')
  let kind = $state<'solar' | 'alternator' | 'mains' | 'generator' | 'dc-dc' | 'other'>('solar')
  let told = $state('')
  const words = {
    solar: 'solar controller',
    alternator: 'alternator',
    mains: 'mains charger',
    generator: 'generator charger',
    'dc-dc': 'DC–DC charger',
    other: 'Wind or other',
  }

  function current(text: string): number | null {
    const parsed = parse(text, 'current')
    if ('reason' in parsed || parsed.value <= 0) {
      told = `amperes: ${'reason' in parsed ? parsed.reason : 'must be more than 0'}`
      return null
    }
    told = ''
    return parsed.value
  }
  function fresh(prefix: string, taken: string[]): string {
    let n = 1
    while (taken.includes(`${prefix}${n}`)) n++
    return `${prefix}${n}`
  }
  function addRun() {
    const a = current(amps)
    if (a === null) return
    const id = fresh(
      'own-',
      bank.runs.map((r) => r.id),
    )
    session.edit(
      { path: '~/runs/-', value: { ...blank(id), from: 'bus', to: name.trim() || 'another load', amps: a } },
      true,
    )
    name = amps = ''
    hand.id = id
    hand.dialog = null
  }
  function addSource() {
    const a = current(sourceAmps)
    if (a === null) return
    const place = source.trim()
    const added = { ...newSource(kind, place || words[kind], bank.sources), amps: a, place: place || null }
    session.edit({ path: '~/sources/-', value: added }, true)
    source = sourceAmps = ''
    hand.id = `source-${added.id}`
    hand.dialog = null
  }
  const own = $derived(e?.circuits.some((c) => c.kind === 'inverter') ?? false)
  function inverterRun() {
    const bus = e!.bus!
    const changes: Change[] = [
      {
        path: '~/runs/-',
        value: {
          ...blank('inverter'),
          from: 'bus',
          to: 'inverter',
          lengthM: Number((e!.mainRun!.laid.lengthM - bus.atM).toFixed(3)) || 1,
        },
      },
    ]
    // The main run ends at the bus then.
    if (indexOf('main') < 0) changes.push({ path: '~/runs/-', value: { ...blank('main'), lengthM: bus.atM } })
    else changes.push({ path: `~/runs/${indexOf('main')}/lengthM`, value: bus.atM })
    session.edit(changes, true)
    hand.id = 'inverter'
    hand.dialog = null
  }
  const main = $derived(docOf('main'))
</script>

<Modal name="add" title="Add to the wiring">
  <div class="grid gap-3 mt-2">
    <section>
      <h3>A run of my own</h3>
      <p class="note">
        A winch, a thruster, a second panel: what no load of the list stands for. It flows in the main run too.
      </p>
      <form
        class="line"
        onsubmit={(event) => {
          event.preventDefault()
          addRun()
        }}
      >
        <label
          ><span class="caption">to</span><input
            class="input input-xs"
            maxlength="60"
            bind:value={name}
            placeholder="winch"
          /></label
        >
        <label
          ><span class="caption">amperes</span><input
            class="input input-xs w-20"
            bind:value={amps}
            placeholder="60 A"
          /></label
        >
        <button class="btn btn-outline btn-xs">Add the run</button>
      </form>
    </section>
    <section>
      <h3>A charge run</h3>
      <p class="note">From a source to the bus, its fuse on the battery’s side.</p>
      <form
        class="line"
        onsubmit={(event) => {
          event.preventDefault()
          addSource()
        }}
      >
        <label
          ><span class="caption">kind</span><select class="select select-xs" bind:value={kind}
            >{#each Object.entries(words) as [value, text] (value)}<option {value}>{text}</option>{/each}</select
          ></label
        >
        <label
          ><span class="caption">where</span><input
            class="input input-xs"
            maxlength="60"
            bind:value={source}
            placeholder="roof"
          /></label
        >
        <label
          ><span class="caption">amperes</span><input
            class="input input-xs w-20"
            bind:value={sourceAmps}
            placeholder="40 A"
          /></label
        >
        <button class="btn btn-outline btn-xs">Add the source</button>
      </form>
      {#each bank.sources as s, i (s.id)}
        <p class="note">
          {s.name || words[s.kind]}, {s.amps === null ? 'amperes not said' : say(s.amps, 'A')}
          <button
            type="button"
            class="link-copper min-h-6"
            onclick={() => session.edit({ path: '~/sources', value: bank.sources.filter((_, n) => n !== i) }, true)}
            >take it out</button
          >
        </p>
      {/each}
    </section>
    <section>
      <h3>In the main run</h3>
      <div class="line">
        {#if e?.inverter && e.bus}
          {#if own}<span class="note">The inverter has a run and a fuse of its own.</span>{:else}<button
              type="button"
              class="btn btn-outline btn-xs"
              onclick={inverterRun}>A run and a fuse for the inverter</button
            >{/if}
        {/if}
        {#if main.switch?.absent}<button
            type="button"
            class="btn btn-outline btn-xs"
            onclick={() => put('main', { switch: null })}>A disconnect</button
          >{/if}
        {#if main.fuse.absent}<button
            type="button"
            class="btn btn-outline btn-xs"
            onclick={() => put('main', { fuse: { class: null, ratingA: null, distanceM: null, absent: false } })}
            >A main fuse</button
          >{/if}
        {#if !main.preCharge}<button
            type="button"
            class="btn btn-outline btn-xs"
            onclick={() => put('main', { preCharge: true })}>A pre-charge</button
          >{/if}
      </div>
    </section>
    {#if e?.stringFuses}
      <section>
        <h3>A fuse in each string</h3>
        <p class="note" data-testid="string-fuses">
          {#if e.stringFuses.fitted}{e.stringFuses.strings.length} × {e.stringFuses.ratingA
              ? say(e.stringFuses.ratingA, 'rating')
              : 'none made so large'}, {e.stringFuses.fuseLabel}: {e.stringFuses.asked
              ? 'the house rule asks for them'
              : 'chosen by you'}.{:else}None{e.stringFuses.asked ? ', though the house rule asks for them' : ''}.{/if}
          <button
            type="button"
            class="link-copper min-h-6"
            onclick={() => put('strings', { fuse: { ...docOf('strings').fuse, absent: e!.stringFuses!.fitted } })}
            >{e.stringFuses.fitted ? 'take them out' : 'fit them'}</button
          >
        </p>
        {#if e.stringFuses.fitted}
          {@const fuse = docOf('strings').fuse}
          <div class="line">
            <ChoiceField
              label="class"
              value={fuse.class}
              options={fuseClasses().map((c) => ({ value: c.id, text: c.label }))}
              advised="class T"
              width="190px"
              onpick={(id) => put('strings', { fuse: { ...fuse, class: id, ratingA: null } })}
            />
            <ChoiceField
              label="rating of each"
              value={fuse.ratingA === null ? null : String(fuse.ratingA)}
              options={(fuseClasses().find((c) => c.id === e!.stringFuses!.fuseClass)?.ratingsA ?? []).map((a) => ({
                value: String(a),
                text: say(a, 'rating'),
              }))}
              advised={e.stringFuses.advisedRatingA ? say(e.stringFuses.advisedRatingA, 'rating') : ''}
              width="130px"
              onpick={(a) => put('strings', { fuse: { ...fuse, ratingA: a === null ? null : Number(a) } })}
            />
          </div>
        {/if}
      </section>
    {/if}
    {#if e?.bonding}
      <section>
        <h3>Bonding conductor</h3>
        <p class="note" data-testid="bonding">
          {#if e.bonding.absent}None.{:else}{e.bonding.size}, {say(e.bonding.lengthM, 'm', session.units)}, from the
            negative bus to chassis, hull or earth; {say(e.bonding.leastMm2, 'mm2')} or more is usual.{/if}
          <button
            type="button"
            class="link-copper min-h-6"
            onclick={() => put('bonding', { absent: !e!.bonding!.absent })}
            >{e.bonding.absent ? 'put it in' : 'there is none'}</button
          >
        </p>
        {#if !e.bonding.absent}
          <div class="line">
            <ChoiceField
              label="size"
              value={docOf('bonding').size}
              options={(practices().find((p) => p.id === e!.mainRun?.laid.practice)?.sizes ?? []).map((x) => ({
                value: x.size,
                text: x.size,
              }))}
              advised={e.bonding.advisedSize}
              width="130px"
              onpick={(size) => put('bonding', { size })}
            />
            <QuantityField
              label="length"
              kind="length"
              path="{pathOf('bonding')}/lengthM"
              advised={e.bonding.lengthM}
              width="70px"
              ensure={() => ensure('bonding')}
            />
          </div>
        {/if}
      </section>
    {/if}
    <p class="note" role="alert">{told}</p>
  </div>
  <p class="caution">
    Where and how a system is bonded is a matter of the local code and of the place: ask who is licensed there.
  </p>
</Modal>

<style>
  section {
    border-top: 1px solid var(--hair);
    padding-top: 6px;
  }
  h3 {
    font-weight: 700;
    font-size: 13.5px;
  }
  .line {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: flex-end;
    margin-top: 3px;
  }
  label {
    display: inline-flex;
    flex-direction: column;
  }
  @media (max-width: 939px) {
    .line :global(.btn),
    .line input,
    .note button {
      min-height: 44px;
    }
  }
</style>
