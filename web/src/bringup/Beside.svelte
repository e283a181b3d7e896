<script lang="ts">
  import type { BringUpStep } from '../api/client'
  import { session } from '../app/session.svelte'
  import Mark from '../ui/Mark.svelte'
  import { bringUp } from './bringup.svelte'
  import Gate from './Gate.svelte'

  /** What a reading means, what the hands do, the gate ahead, and who answers. */
  interface Props {
    step: BringUpStep
    /** On a narrow screen the judgement stands at the meter already. */
    short?: boolean
  }
  let { step, short = false }: Props = $props()

  const walk = $derived(bringUp.walk!)
  const gate = $derived(
    walk.gates.find((g) => !g.open && g.before <= bringUp.index) ??
      walk.gates.find((g) => g.before > bringUp.index) ??
      walk.gates.find((g) => g.before === bringUp.index) ??
      null,
  )
  const show = (value: number, unit: string) => {
    const shown = session.show(value, unit)
    return `${shown.text} ${shown.unit}`.trim()
  }
  /** A figure with a working opens it. */
  const equation = (value: number) => step.working.find((w) => Math.abs(w.value - value) < 1e-9)
  const opens = (value: number) => session.present(equation(value)!, step.working)
  const FAULTS = 3
  const another = () => bringUp.meter({ seed: 1 + Math.floor(Math.random() * 9999), faults: FAULTS })
  const reopened = $derived(walk.steps.filter((s) => s.state === 'reopened'))
  const earlier = $derived(step.entries.slice(0, -1).map((i) => bringUp.record!.entries[i]))
</script>

{#if step.verdict}
  {#if !short}
    <section data-testid="judgement">
      <h3>
        {#if step.state === 'done'}<span>✓</span>{:else}<Mark kind={step.state === 'wrong' ? 'wrong' : 'look'} />{/if}
        {step.verdict.title}
      </h3>
      <p class="note">{step.verdict.sentence}</p>
    </section>
  {/if}
  {#if step.verdict.figures.length > 0}
    <dl class="figures">
      {#each step.verdict.figures as f, i (i)}
        <div>
          <dt class="fig">
            {#if equation(f.value)}<button type="button" class="fig open" onclick={() => opens(f.value)}
                >{show(f.value, f.unit)}</button
              >{:else}{show(f.value, f.unit)}{/if}
          </dt>
          <dd class="note">{f.label}</dd>
        </div>
      {/each}
    </dl>
  {/if}
  {#if step.verdict.toDo.length > 0}
    <section id="todo" data-testid="todo">
      <h3>What to do</h3>
      <ol>
        {#each step.verdict.toDo as line, i (i)}<li>{line}</li>{/each}
      </ol>
    </section>
  {/if}
  {#if step.take.length > 0}
    <section data-testid="take">
      <button type="button" class="btn btn-sm" onclick={() => bringUp.take(step)}>Take it into the design</button>
      <p class="caption">{step.take.map((t) => t.words).join('; ')}. Bank and Run it down then reckon with it.</p>
    </section>
  {/if}
{/if}
{#if short}<button type="button" class="btn onward" onclick={() => bringUp.next()}>it stands, go on</button>{/if}
{#if earlier.length > 0}
  <section>
    <h3>Read before</h3>
    <ul class="before">
      {#each earlier as e, i (i)}<li class="note">
          <b class="fig">{e.value ?? e.words ?? e.what}{e.value != null ? ` ${step.unit}` : ''}</b>
          {e.at.replace('T', ' ')}{e.by ? `, ${e.by}` : ''}{e.what === 'mended' ? ', put right' : ''}
        </li>{/each}
    </ul>
  </section>
{/if}
{#if reopened.length > 0}
  <section data-testid="reopened-list">
    <h3>Reopened</h3>
    <p class="note">
      The design has changed at {reopened
        .slice(0, 6)
        .map((s) => s.title)
        .join(', ')}{reopened.length > 6 ? ` and ${reopened.length - 6} more` : ''}.
    </p>
  </section>
{/if}
{#if gate && !short}<Gate {gate} />{/if}
<section class="who">
  <label class="by"
    ><span class="caption">who holds the meter</span><input
      class="input"
      data-path="/bringUp/by"
      maxlength="120"
      value={bringUp.record?.by ?? ''}
      onchange={(e) => session.edit({ path: '/bringUp/by', value: e.currentTarget.value.trim() }, true)}
    /></label
  >
  <p class="note" data-testid="whose">{walk.meter}</p>
  <p class="links">
    {#if bringUp.seed === null}
      <button type="button" class="link-copper" data-testid="learn" onclick={another}
        >learn it on a simulated bank</button
      >
    {:else}
      <button type="button" class="link-copper" data-testid="another" onclick={another}>another bank</button>
      <button
        type="button"
        class="link-copper"
        data-testid="sound"
        onclick={() => bringUp.meter({ seed: bringUp.seed!, faults: 0 })}>no faults</button
      >
      <button type="button" class="link-copper" data-testid="own" onclick={() => bringUp.meter(null)}
        >my own meter</button
      >
    {/if}
  </p>
  {#if bringUp.seed !== null}
    <label class="by"
      ><span class="caption">its number, for the same bank again</span><input
        class="input fig"
        data-testid="seed"
        inputmode="numeric"
        value={String(bringUp.seed)}
        onchange={(e) => {
          const seed = Number(e.currentTarget.value)
          if (Number.isInteger(seed) && seed >= 0 && seed <= Number.MAX_SAFE_INTEGER)
            bringUp.meter({ seed, faults: bringUp.record?.simulated?.faults ?? FAULTS })
          else e.currentTarget.value = String(bringUp.seed)
        }}
      /></label
    >
    <p class="caption">Its readings prove nothing of your own bank: they count only as long as it answers.</p>
  {/if}
</section>

<style>
  section {
    padding-bottom: 8px;
    margin-bottom: 8px;
    border-bottom: 1px solid var(--hair);
  }
  section:last-child {
    border: 0;
  }
  h3 {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 13px;
    font-weight: 700;
    margin-bottom: 2px;
  }
  ol {
    list-style: decimal;
    padding-left: 18px;
    font-size: 12.5px;
    line-height: 1.45;
  }
  ol li {
    margin-bottom: 3px;
  }
  .figures {
    margin: 0 0 8px;
  }
  .figures div {
    display: grid;
    grid-template-columns: 84px minmax(0, 1fr);
    gap: 6px;
    align-items: baseline;
  }
  dt {
    font-size: 15px;
  }
  dd {
    margin: 0;
  }
  .open {
    cursor: pointer;
    border-bottom: 1.5px dotted var(--ink);
  }
  .onward {
    width: 100%;
    min-height: 48px;
    margin-bottom: 8px;
  }
  .by {
    display: grid;
    gap: 1px;
    margin-bottom: 4px;
  }
  .by .input {
    height: 26px;
    width: 100%;
  }
  .links {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    font-size: 12.5px;
  }
  .links button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    ol {
      font-size: 15px;
    }
    .by .input {
      height: 44px;
      font-size: 16px;
    }
    .links button {
      min-height: 44px;
      font-size: 14px;
    }
  }
</style>
