<script lang="ts">
  import type { Evaluation } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { num, say, stringName } from '../../ui/quantity'

  /** Where the leads leave the bank: three ways, each with its worst share before it is chosen. */
  type Network = NonNullable<Evaluation['banks'][number]['network']>
  const network = $derived(session.result?.network ?? null) as Network | null
  const names = { 'same-end': 'Same end', diagonal: 'Diagonal', 'bus-bars': 'Bus bars', rails: 'Own' }
  const advised = $derived(network ? names[network.wiring.advised] : '')
</script>

{#if network && network.strings.shares.length > 1}
  <section aria-label="Where the leads leave the bank" class="mb-3">
    <h3 class="font-bold text-[13.5px] mb-1.5">Where the leads leave the bank</h3>
    <div class="flex flex-col gap-1.5">
      {#each network.wiring.styles as s (s.style)}
        {@const on = s.style === network.wiring.style}
        <button
          type="button"
          class={['style', on && 'on']}
          aria-pressed={on}
          data-style={s.style}
          onclick={() => session.edit({ path: '~/wiring/style', value: s.style }, true)}
        >
          <svg width="64" height="36" viewBox="0 0 64 36" aria-hidden="true">
            {#if s.style === 'bus-bars'}
              <path d="M4 4 H60 M4 32 H60" stroke="var(--ink)" stroke-width="3" />
            {:else if s.style === 'diagonal'}
              <path d="M12 4 H62 M2 32 H52" stroke="var(--ink)" stroke-width="1.5" />
            {:else}
              <path d="M12 4 H62 M12 32 H62" stroke="var(--ink)" stroke-width="1.5" />
            {/if}
            {#each [12, 24, 36, 48] as x, n (x)}
              {@const h = s.style === 'same-end' ? 13 + n * 3.4 : 20}
              <rect {x} y={28 - h} width="7" height={h} fill="var(--copper)" />
            {/each}
          </svg>
          <span class="flex-1 text-left">
            <b>{names[s.style]}</b>
            <span class="block note"
              >{s.allowsAcW !== null
                ? `allows ${num(s.allowsAcW)}\u00a0W`
                : s.ceilingA !== null
                  ? `allows ${say(s.ceilingA, 'A')}`
                  : 'no limit known'}</span
            >
          </span>
          <span class="text-right"
            ><span class="fig text-[19px]">{say(s.worstShare, 'fraction')}</span><span class="block note"
              >string {stringName(s.worstString)}</span
            ></span
          >
        </button>
      {/each}
    </div>
    {#if network.wiring.pinned}
      <button
        type="button"
        class="link-copper text-[12.5px] min-h-6 mt-1"
        onclick={() => session.edit({ path: '~/wiring/style', value: null }, true)}
        >back to advised: {advised.toLowerCase()}</button
      >
    {/if}
  </section>
{/if}

<style>
  .style {
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 4px 8px;
    border: 1px solid var(--hair);
    cursor: pointer;
    background: var(--sheet);
  }
  .style:hover {
    border-color: var(--ink-3);
  }
  .on {
    background: var(--tint);
    border: 1.5px solid var(--ink);
  }
</style>
