<script lang="ts">
  import type { BringUpGate, BringUpStep } from '../api/client'
  import Mark from '../ui/Mark.svelte'
  import { bringUp } from './bringup.svelte'

  /** The steps in their order. A heading stands for its steps until one of them is in hand; gates lie across. */
  interface Props {
    onpick?: () => void
  }
  let { onpick }: Props = $props()

  const walk = $derived(bringUp.walk!)
  const parts = $derived.by(() => {
    let at = 0
    return walk.parts.map((p) => {
      const from = at
      at += p.count
      return { ...p, from, steps: walk.steps.slice(from, at) }
    })
  })
  let opened = $state<Record<number, boolean>>({})
  const isOpen = (p: { from: number; count: number }) =>
    opened[p.from] ?? (bringUp.index >= p.from && bringUp.index < p.from + p.count)
  const done = (s: BringUpStep) => s.state === 'done' || s.state === 'look'
  const gatesAt = (i: number) => walk.gates.filter((g) => g.before === i)

  function pick(step: BringUpStep) {
    bringUp.hand = step.key
    onpick?.()
  }
  /** The step in hand is in sight. */
  function sight(node: HTMLElement) {
    node.scrollIntoView({ block: 'nearest' })
  }
</script>

{#snippet gate(g: BringUpGate)}
  <div class={['gate', !g.open && 'shut']} data-gate={g.key} title={g.opens}>
    <span>gate: {g.title}{g.reason ? ', passed with a reason' : ''}</span>
  </div>
{/snippet}

<nav class="order" aria-label="The order of steps">
  <h2>The order of steps</h2>
  {#each parts as p, at (p.from)}
    {#if p.bankName && p.bankName !== parts[at - 1]?.bankName}<h3>{p.bankName}</h3>{/if}
    {@const count = p.steps.filter(done).length}
    {@const worst = p.steps.some((s) => s.state === 'wrong')
      ? 'wrong'
      : p.steps.some((s) => s.state === 'look')
        ? 'look'
        : null}
    {#each gatesAt(p.from) as g (g.key)}{@render gate(g)}{/each}
    <button
      type="button"
      class={['part', count === p.count && 'all']}
      aria-expanded={isOpen(p)}
      data-part={p.title}
      onclick={() => (opened[p.from] = !isOpen(p))}
    >
      <span class="sign"
        >{#if worst}<Mark kind={worst} />{:else if count === p.count}✓{/if}</span
      >
      <span class="what">{p.title}</span>
      <span class="fig how">{count} of {p.count}</span>
    </button>
    {#if isOpen(p)}
      {#each p.steps as s, i (s.key)}
        {#if i > 0}{#each gatesAt(p.from + i) as g (g.key)}{@render gate(g)}{/each}{/if}
        <button
          type="button"
          class={['step', s.key === bringUp.step?.key && 'hand', s.barred && 'barred']}
          aria-current={s.key === bringUp.step?.key ? 'step' : undefined}
          data-step={s.key}
          data-state={s.state}
          onclick={() => pick(s)}
          {@attach s.key === bringUp.step?.key ? sight : undefined}
        >
          <span class="sign">
            {#if s.state === 'done'}✓{:else if s.state === 'wrong'}<Mark
                kind="wrong"
              />{:else if s.state === 'look'}<Mark kind="look" />{:else}<Mark kind="none" />{/if}
          </span>
          <span class="what">{s.title}{s.state === 'reopened' ? ', changed' : ''}</span>
          <span class={['how', s.unit && 'fig']}>{s.brief ?? ''}</span>
        </button>
      {/each}
    {:else}
      {#each walk.gates.filter((g) => g.before > p.from && g.before < p.from + p.count) as g (g.key)}{@render gate(
          g,
        )}{/each}
    {/if}
  {/each}
</nav>

<style>
  .order {
    display: flex;
    flex-direction: column;
  }
  h2 {
    font-size: 13px;
    font-weight: 700;
    margin-bottom: 4px;
  }
  h3 {
    font-size: 12.5px;
    font-weight: 700;
    margin-top: 10px;
    border-bottom: 1px solid var(--ink);
  }
  button {
    display: grid;
    grid-template-columns: 18px minmax(0, 1fr) auto;
    gap: 0 2px;
    align-items: baseline;
    text-align: left;
    font-size: 12px;
    line-height: 16px;
    min-height: 20px;
    padding: 1px 4px 1px 0;
    border: 1px solid transparent;
    cursor: pointer;
  }
  .part {
    color: var(--ink-2);
    margin-top: 3px;
  }
  .part .what {
    font-weight: 650;
  }
  .part .how {
    color: var(--ink-3);
    font-weight: 500;
  }
  .step {
    padding-left: 10px;
  }
  .hand {
    border-color: var(--ink);
    background: var(--tint);
    font-weight: 650;
  }
  .barred:not(.hand) {
    color: var(--ink-3);
  }
  .how {
    font-size: 11.5px;
    white-space: nowrap;
  }
  .how:not(.fig) {
    color: var(--ink-3);
    max-width: 90px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .sign {
    text-align: center;
  }
  .gate {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: 12px;
    font-weight: 650;
    margin: 3px 0 1px;
    padding: 1px 0;
  }
  .gate span {
    padding-left: 18px;
  }
  .gate:not(.shut)::after {
    content: '';
    flex: 1;
    border-top: 1.4px solid var(--ink);
  }
  .shut {
    background: var(--ink);
    color: var(--sheet);
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
      align-items: center;
      font-size: 14px;
    }
    .gate {
      font-size: 13px;
      min-height: 32px;
    }
    .how {
      font-size: 13px;
    }
  }
</style>
