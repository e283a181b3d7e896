<script lang="ts">
  import type { BringUpStep } from '../api/client'
  import { session } from '../app/session.svelte'
  import Mark from '../ui/Mark.svelte'
  import { bringUp } from './bringup.svelte'
  import Capacity from './Capacity.svelte'
  import CutOut from './CutOut.svelte'
  import Loop from './Loop.svelte'
  import { readMeter, written } from './meterText'
  import NumberLine from './NumberLine.svelte'
  import Siblings from './Siblings.svelte'

  /** One step: what to do, where the tips go, what the meter says, and what to press next. */
  interface Props {
    step: BringUpStep
    ontodo: () => void
  }
  let { step, ontodo }: Props = $props()

  let typed = $state('')
  let refused = $state<string | null>(null)
  let again = $state(false)
  let name = $state('')
  let busy = $state(false)
  // Another step is another field; the same step judged anew keeps what is being typed.
  const key = $derived(step.key)
  $effect(() => {
    void key
    typed = name = ''
    refused = null
    again = false
  })

  const walk = $derived(bringUp.walk!)
  const zone = $derived(bringUp.answer!.zones[step.key] ?? null)
  const loop = $derived(
    step.key.includes('/joint-main-') || step.key.includes('/copper-main-') || step.key.endsWith('/amps')
      ? (walk.loops.find((l) => l.bank === step.bank) ?? null)
      : null,
  )
  const last = $derived(bringUp.last)
  /** What stands in the field: typed, or what it last said. */
  const shown = $derived(
    last?.what === 'read' && last.value !== undefined && last.value !== null && !again && step.state !== 'reopened'
      ? last.value
      : null,
  )
  const reading = $derived(typed === '' ? null : readMeter(typed, step.unit))
  const closed = $derived(
    (bringUp.waiting !== null && bringUp.waiting.what !== 'mended') ||
      (step.state !== 'open' && step.state !== 'reopened' && !again),
  )
  const ill = $derived(step.state === 'wrong' || step.state === 'look')
  /** Where the server is away, the bands that came with the step say what they can. */
  const meanwhile = $derived.by(() => {
    const e = step.expected
    const v = bringUp.waiting?.value
    if (!e || v === undefined || v === null) return null
    return v >= e.okFrom && v <= e.okTo ? 'in order' : v >= e.lookFrom && v <= e.lookTo ? 'worth a look' : 'wrong'
  })

  const away = $derived(bringUp.trouble !== null || session.failure !== null)

  function keep() {
    if (!reading) {
      refused = typed === '' ? 'What does the meter say?' : `That is no reading in ${step.unit}.`
      return
    }
    bringUp.read(step, reading.value)
    typed = ''
    refused = null
    again = false
  }
  async function simulated() {
    busy = true
    if ((await bringUp.simulate(step)) !== null) again = false
    busy = false
  }
  /** Put right first: then it is measured again. */
  function mended() {
    bringUp.write(step.key, step.sign, 'mended')
    again = true
  }
  function done() {
    bringUp.write(step.key, step.sign, 'done')
    bringUp.next()
  }
  const others = $derived(
    step.kind === 'signature'
      ? bringUp.steps
          .filter((s) => s.kind === 'signature' && s.key !== step.key)
          .map((s) => s.brief?.trim().toLowerCase())
      : [],
  )
  const slip = $derived(
    name.trim() === '' ? 'a name' : others.includes(name.trim().toLowerCase()) ? 'somebody else signs here' : null,
  )
  function sign() {
    if (slip) return
    bringUp.write(step.key, step.sign, 'signed', { words: name.trim().slice(0, 120) })
    bringUp.next()
  }
</script>

<div class={['bench', step.kind, closed && step.verdict && 'told']}>
  <p class="kicker caption" data-testid="kicker">
    {`step ${bringUp.index + 1} of ${walk.steps.length} · ${step.part}`}{#if step.load}{' · '}<b>{step.load}</b>{/if}
  </p>
  <h1 class="headline" data-testid="headline">
    {bringUp.waiting && bringUp.waiting.what === 'read' && away
      ? `${written(bringUp.waiting.value ?? 0, step.decimals)} ${step.unit} is kept here; it is judged once the server answers`
      : step.headline}
  </h1>
  {#if step.state === 'reopened'}<p class="care" data-testid="reopened">
      <b>The design has changed here</b> since this was done: once more, please. What was read before is kept.
    </p>{/if}
  <p class="do">{step.do}</p>
  {#if step.caution}<p class="care"><b>Mind:</b> {step.caution}</p>{/if}

  {#if step.list.length > 0}
    <ul class="list">
      {#each step.list as line, i (i)}<li>{line}</li>{/each}
    </ul>
  {/if}

  {#if step.kind === 'reading'}
    <div class="measure">
      {#if step.tips}<div class="cut"><CutOut {step} {zone} /></div>{/if}
      <div class="meter">
        <p class="note">Meter: <b>{step.range}</b></p>
        <label class="display" data-barred={step.barred ? '' : undefined}>
          <span class="caption">what it says</span>
          {#if closed && shown !== null}
            <output class="fig big" data-testid="shown">{written(shown, step.decimals)}</output>
          {:else}
            <input
              class="fig big"
              data-testid="meter"
              inputmode="decimal"
              autocomplete="off"
              spellcheck="false"
              aria-label="What the meter says, {step.unit}"
              aria-invalid={refused ? 'true' : undefined}
              disabled={step.barred}
              bind:value={typed}
              oninput={() => (refused = null)}
              onkeydown={(e) => e.key === 'Enter' && keep()}
            />
          {/if}
          <span class="fig unit">{step.unit}</span>
        </label>
        <p class="says note" aria-live="polite">
          {#if refused}<span role="alert">{refused}</span>
          {:else if reading?.understood}= {reading.understood}
          {:else if shown !== null && last}
            {last.simulated === undefined || last.simulated === null ? 'typed' : 'from the simulated meter'} at {last.at.slice(
              11,
            )}{last.by ? ` by ${last.by}` : ''}{step.entries.length > 1 ? `; entry ${step.entries.length} here` : ''}
          {:else if step.barred}a gate before it is shut
          {:else}{step.expected?.words ?? ''}{/if}
        </p>
        {#if step.expected}<NumberLine {step} value={shown} />{/if}
        {#if meanwhile && away}<p class="note" data-testid="meanwhile">
            By the bands that came with this step: <b>{meanwhile}</b>.
          </p>{/if}
      </div>
    </div>
  {:else if step.kind === 'capacity' && !closed}
    <Capacity {step} />
  {/if}

  <div class="verdict" data-testid="verdict">
    {#if step.verdict && closed}
      <h2>
        {#if step.state === 'done'}<span>✓</span>{:else}<Mark kind={step.state === 'wrong' ? 'wrong' : 'look'} />{/if}
        {step.verdict.title}
      </h2>
      <p class="note">{step.verdict.sentence}</p>
    {/if}
  </div>

  <div class="acts">
    {#if step.kind === 'reading'}
      {#if closed}
        {#if ill}
          <button type="button" class="btn btn-primary main" data-testid="again" disabled={step.barred} onclick={mended}
            >Done: measure again</button
          >
          <button type="button" class="btn main thin" onclick={ontodo}
            >What to do, {step.verdict?.toDo.length ?? 0}</button
          >
          <button type="button" class="link-copper roomy" onclick={() => bringUp.next()}>it stands, go on</button>
        {:else}
          <button type="button" class="btn btn-primary main" data-testid="next" onclick={() => bringUp.next()}
            >Next ›</button
          >
          <button type="button" class="link-copper" onclick={() => (again = true)}>measure again</button>
        {/if}
      {:else}
        <button
          type="button"
          class="btn btn-primary main alone"
          data-testid="keep"
          disabled={step.barred || !reading}
          onclick={keep}>Keep this reading</button
        >
        {#if bringUp.seed !== null}<button
            type="button"
            class="link-copper"
            data-testid="simulated"
            disabled={step.barred || busy}
            onclick={() => void simulated()}>from the simulated meter</button
          >{/if}
        <button type="button" class="link-copper quiet" onclick={() => bringUp.next()}>later</button>
      {/if}
    {:else if step.kind === 'signature' && !closed}
      <label class="name"
        ><span class="caption">name</span><input
          class="input"
          data-testid="name"
          maxlength="120"
          disabled={step.barred}
          bind:value={name}
          onkeydown={(e) => e.key === 'Enter' && sign()}
        /></label
      >
      <button
        type="button"
        class="btn btn-primary main"
        data-testid="sign"
        disabled={step.barred || slip !== null}
        onclick={sign}>Sign</button
      >
      {#if name !== '' && slip}<span class="caption" role="alert">{slip}</span>{/if}
    {:else if step.kind === 'act' && !closed}
      <button type="button" class="btn btn-primary main" data-testid="done" disabled={step.barred} onclick={done}
        >{step.list.length > 1 ? 'All of it is done' : 'It is done'}</button
      >
      <button type="button" class="link-copper quiet" onclick={() => bringUp.next()}>later</button>
    {:else if closed}
      <button type="button" class="btn btn-primary main" data-testid="next" onclick={() => bringUp.next()}
        >Next ›</button
      >
      {#if step.kind === 'capacity'}<button type="button" class="link-copper" onclick={() => (again = true)}
          >test again</button
        >{/if}
    {/if}
  </div>

  {#if loop}<div class="loop"><Loop {loop} /></div>
  {:else if step.kind === 'reading' && step.expected}<div class="loop"><Siblings {step} /></div>{/if}
</div>

<style>
  .bench {
    display: flex;
    flex-direction: column;
    gap: 4px;
  }
  .kicker b {
    color: var(--ink-2);
  }
  .do {
    font-size: 13px;
  }
  .care {
    font-size: 12.5px;
    border-left: 3px solid var(--ink);
    padding-left: 8px;
    margin: 2px 0;
  }
  .list {
    margin: 4px 0;
    padding-left: 18px;
    list-style: square;
    font-size: 14px;
    line-height: 1.55;
  }
  .measure {
    display: grid;
    grid-template-columns: minmax(0, 470px) minmax(180px, 1fr);
    gap: 4px 18px;
    margin-top: 6px;
    align-items: start;
  }
  .display {
    position: relative;
    display: flex;
    align-items: baseline;
    justify-content: flex-end;
    gap: 6px;
    border: 1.6px solid var(--ink);
    border-bottom: 5px double var(--ink);
    background: var(--sheet);
    padding: 12px 10px 2px;
    min-height: 66px;
  }
  .display[data-barred] {
    border-color: var(--ink-3);
    background: var(--page);
  }
  .display .caption {
    position: absolute;
    left: 8px;
    top: 3px;
  }
  .display:focus-within {
    outline: 2px solid var(--ink);
    outline-offset: 2px;
  }
  .big {
    font-size: 38px;
    line-height: 44px;
    text-align: right;
    width: 100%;
    min-width: 0;
    background: none;
    border: 0;
    outline: none;
    display: block;
  }
  .unit {
    font-size: 19px;
  }
  .says {
    min-height: 18px;
    margin: 2px 0;
  }
  .verdict {
    display: none;
  }
  .verdict h2 {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 15px;
    font-weight: 700;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 14px;
    margin: 4px 0;
  }
  .thin {
    display: none;
  }
  .acts .link-copper {
    min-height: 28px;
    font-size: 13px;
  }
  .quiet {
    font-weight: 500;
  }
  .name {
    display: flex;
    gap: 8px;
    align-items: center;
    flex: 1 1 200px;
  }
  .name .input {
    flex: 1;
    min-width: 0;
  }
  @media (max-width: 1239px) {
    .measure {
      grid-template-columns: minmax(0, 470px);
    }
  }
  @media (max-width: 939px) {
    .loop {
      display: none;
    }
    .bench {
      padding: 8px 14px 6px;
      gap: 3px;
    }
    .kicker {
      font-size: 12.5px;
    }
    .headline {
      font-size: 19px;
    }
    .do {
      font-size: 14px;
    }
    .reading .care {
      font-size: 12.5px;
    }
    .list {
      font-size: 15px;
    }
    .measure {
      display: block;
    }
    .cut {
      margin: 4px 0;
      max-width: 470px;
    }
    .display {
      min-height: 62px;
    }
    .verdict {
      display: block;
      font-size: 14px;
    }
    .verdict .note {
      font-size: 13.5px;
    }
    .main {
      min-height: 48px;
      flex: 1 1 150px;
      font-size: 15px;
    }
    .roomy,
    .told .list {
      display: none;
    }
    .alone {
      flex-basis: 100%;
    }
    .thin {
      display: inline-flex;
      flex: 1 1 110px;
    }
    .acts .link-copper {
      min-height: 44px;
      font-size: 14px;
    }
    .name .input {
      height: 48px;
      font-size: 18px;
    }
  }
</style>
