<script lang="ts">
  import { session } from '../app/session.svelte'
  import Fig from '../ui/Fig.svelte'
  import { say } from '../ui/quantity'
  import { nameOf } from './banks'

  /** One plug for all: the hours each bank needs from its floor to full, against the night. */
  const plug = $derived(session.evaluation?.site?.plug ?? null)
  const MOST = 3
  const longest = $derived(plug ? Math.max(plug.nightH, ...plug.banks.map((b) => b.hours)) * 1.04 : 1)
  const shown = $derived(
    plug ? [...plug.banks.entries()].toSorted((a, b) => b[1].hours - a[1].hours).slice(0, MOST) : [],
  )
  const short = (id: string) => {
    const bank = session.design!.banks.find((b) => b.id === id)
    return bank ? nameOf(bank) : id
  }
</script>

{#if plug}
  <div class="plug" data-testid="one-plug" title={plug.words}>
    <svg width="30" height="30" viewBox="0 0 34 30" aria-hidden="true" class="bare">
      <path d="M13 5 H20 A10 10 0 0 1 20 25 H13 Z" fill="var(--sheet)" stroke="var(--ink)" />
      <path d="M13 10 H4 M13 20 H4 M30 15 H34" stroke="var(--ink)" />
    </svg>
    <div class="rows">
      {#each shown as [i, b] (b.bank)}
        <p>
          <span class="name">{short(b.bank)}</span>
          <span class="track">
            <span class={['bar', b.hours > plug.nightH && 'over']} style:width="{(b.hours / longest) * 100}%"></span>
            <span class="night" style:left="{(plug.nightH / longest) * 100}%"></span>
          </span>
          <Fig ptr="/site/plug/banks/{i}/hours" unit="h" label="{short(b.bank)}, hours at the plug" size={12.5} />
        </p>
      {/each}
      <p class="caption words">
        {plug.banks.length > MOST ? `${plug.banks.length - MOST} more; ` : ''}one plug: {plug.way === 'together'
          ? 'all at once'
          : plug.way === 'in-turn'
            ? `in turn, ${say(plug.hoursInTurn, 'h')}`
            : 'too long, or too weak'}, a night {say(plug.nightH, 'h')}
      </p>
    </div>
  </div>
{/if}

<style>
  .plug {
    display: flex;
    align-items: center;
    gap: 8px;
    flex: none;
    width: 292px;
  }
  .rows {
    flex: 1;
    min-width: 0;
  }
  p {
    display: grid;
    grid-template-columns: 84px minmax(0, 1fr) 48px;
    gap: 6px;
    align-items: center;
    font-size: 11.5px;
    line-height: 1.1;
    height: 15px;
  }
  .name {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .track {
    position: relative;
    height: 9px;
  }
  .bar {
    position: absolute;
    inset: 0 auto 0 0;
    background: var(--ink-3);
  }
  .over {
    background: var(--ink);
  }
  .night {
    position: absolute;
    top: -4px;
    bottom: -4px;
    border-left: 1.5px dashed var(--copper);
  }
  .words {
    display: block;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    font-size: 11px;
  }
  .plug :global(.figure) {
    min-height: 0;
  }
  @media (max-width: 939px) {
    .plug {
      width: 100%;
      padding: 6px 12px;
    }
    p {
      height: 24px;
      grid-template-columns: 100px minmax(0, 1fr) 56px;
      font-size: 12.5px;
    }
    .plug :global(.figure) {
      min-height: 24px;
    }
    .words {
      font-size: 12px;
      white-space: normal;
      height: auto;
    }
  }
</style>
