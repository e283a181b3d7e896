<script lang="ts">
  import type { BringUpGate } from '../api/client'
  import Mark from '../ui/Mark.svelte'
  import { bringUp } from './bringup.svelte'

  /** A gate that is shut, and the only way through it: a reason in writing. */
  interface Props {
    gate: BringUpGate
  }
  let { gate }: Props = $props()

  const LEAST = 12
  let asked = $state(false)
  let reason = $state('')
  const enough = $derived(reason.trim().length >= LEAST)

  function pass() {
    if (!enough) return
    bringUp.write(gate.key, gate.sign, 'passed', { words: reason.trim().slice(0, 400) })
    reason = ''
    asked = false
  }
</script>

<section class={['gate', !gate.open && 'shut']} data-testid="gate">
  {#if gate.open}
    <h3>
      <span>✓</span> Gate: {gate.title}
    </h3>
    {#if gate.reason}<p class="note">Passed with a reason: {gate.reason}</p>{/if}
  {:else}
    <h3><Mark kind="wrong" /> Shut: {gate.title}</h3>
    <p class="note">
      {gate.opens}{asked ? ' Or with a reason written down, which prints on the record.' : ''}
    </p>
    {#if asked}
      <label class="caption" for="gate-reason">reason, of {LEAST} letters at least</label>
      <textarea
        id="gate-reason"
        rows="3"
        maxlength="400"
        class="textarea"
        bind:value={reason}
        onkeydown={(e) => e.key === 'Enter' && (e.preventDefault(), pass())}></textarea>
      <button type="button" class="btn btn-sm" disabled={!enough} onclick={pass}>Pass it with this reason</button>
    {:else}
      <button type="button" class="link-copper" onclick={() => (asked = true)}>with a reason ›</button>
    {/if}
  {/if}
</section>

<style>
  h3 {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 13px;
    font-weight: 700;
  }
  .textarea {
    width: 100%;
    min-height: 0;
    border-color: var(--ink-3);
    background: var(--sheet);
    font-size: 13px;
    padding: 4px 6px;
    margin-bottom: 6px;
  }
  .link-copper {
    min-height: 24px;
    font-size: 12.5px;
  }
  @media (max-width: 939px) {
    .shut {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
      column-gap: 12px;
    }
    .shut > :not(h3, .note, .link-copper) {
      grid-column: 1 / -1;
    }
    .shut .note {
      grid-row: 2;
    }
    .shut > .link-copper {
      grid-area: 1 / 2 / 3 / 3;
    }
    .gate {
      padding: 10px 14px;
      font-size: 14px;
    }
    .shut {
      background: var(--ink);
      color: var(--sheet);
    }
    .shut .note,
    .shut .caption {
      color: var(--sheet);
    }
    .shut .link-copper {
      color: var(--copper-body);
      min-height: 44px;
    }
    .shut :global(svg rect) {
      fill: var(--sheet);
    }
    .btn {
      min-height: 48px;
    }
    .textarea {
      color: var(--ink);
      font-size: 16px;
    }
  }
</style>
