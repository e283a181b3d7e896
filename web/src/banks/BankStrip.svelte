<script lang="ts">
  import { session } from '../app/session.svelte'
  import Mark from '../ui/Mark.svelte'
  import { say } from '../ui/quantity'
  import BankSign from './BankSign.svelte'
  import { joinKinds, nameOf } from './banks'
  import JoinSign from './JoinSign.svelte'
  import PlugSign from './PlugSign.svelte'
  import { banksTable } from './table.svelte'

  /** The banks of the design to scale, what joins them as copper, and one plug for all. The white one is in hand. */
  let { phone }: { phone: boolean } = $props()
  const banks = $derived(session.design!.banks)
  const at = (id: string) => banks.findIndex((b) => b.id === id)
  const joins = $derived(
    session.design!.joins.map((join, index) => ({ join, index, a: at(join.from), b: at(join.to) })),
  )
  const between = (i: number) => joins.filter((j) => Math.min(j.a, j.b) === i && Math.max(j.a, j.b) === i + 1)
  const far = $derived(joins.filter((j) => Math.abs(j.a - j.b) > 1))
  const result = (id: string) => session.evaluation?.banks.find((b) => b.id === id) ?? null
  let listed = $state(false)
</script>

{#snippet figures(id: string, document: (typeof banks)[number])}
  {@const e = result(id)}
  <span class="fig">{e?.voltage ? say(e.voltage.systemV, 'class') : '–'}</span>
  <span class="fig">{e?.bank ? say(e.bank.holds.ratedWh, 'Wh') : document.unit ? '–' : ''}</span>
  {#if !e?.bank}<span class="caption">no unit yet</span>{/if}
{/snippet}

{#if phone}
  <div class="list" role="group" aria-label="Banks of this design" data-testid="banks">
    {#each banks as bank, i (bank.id)}
      {#if listed || i === session.bankIndex}
        <div class="flex">
          <button
            type="button"
            class={['row', i === session.bankIndex && 'on']}
            aria-pressed={i === session.bankIndex}
            onclick={() => {
              session.toBank(i)
              listed = false
            }}
          >
            <BankSign index={i} height={26} most={40} />
            <b>{nameOf(bank)}</b>
            {@render figures(bank.id, bank)}
            <Mark kind={session.markOfBank(bank.id)} />
          </button>
          {#if i === session.bankIndex}
            <button type="button" class="others" aria-expanded={listed} onclick={() => (listed = !listed)}
              >{listed ? 'close' : 'all banks'}</button
            >
          {/if}
        </div>
        {#if listed}
          {#each joins.filter((j) => j.a === i) as j (j.index)}
            <button type="button" class="between" onclick={() => banksTable.show(j.join.id || String(j.index))}
              >{joinKinds.find((k) => k.value === j.join.kind)?.text}
              {j.join.amps === null ? '' : say(j.join.amps, 'rating')} to {nameOf(banks[j.b])}</button
            >
          {/each}
        {/if}
      {/if}
    {/each}
    {#if listed}
      <PlugSign />
      <button type="button" class="link-copper between" onclick={() => banksTable.show()}>banks and joins</button>
    {/if}
  </div>
{:else}
  <div class={['strip', banks.length > 4 && 'close']} data-testid="banks">
    <div class="banks" role="group" aria-label="Banks of this design">
      {#each banks as bank, i (bank.id)}
        {#if i > 0}
          <div class="gap">
            {#each between(i - 1).slice(0, 2) as j (j.index)}<JoinSign index={j.index} back={j.a > j.b} />{/each}
          </div>
        {/if}
        <button
          type="button"
          class={['bank', i === session.bankIndex && 'on']}
          aria-pressed={i === session.bankIndex}
          title={nameOf(bank)}
          onclick={() => session.toBank(i)}
        >
          {#if banks.length <= 5}<BankSign index={i} most={banks.length > 3 ? 40 : 66} />{/if}
          <span class="words">
            <span class="name"><b>{nameOf(bank)}</b> <Mark kind={session.markOfBank(bank.id)} /></span>
            <span class="figures">{@render figures(bank.id, bank)}</span>
          </span>
        </button>
      {/each}
    </div>
    <div class="ends">
      {#each far.slice(0, 2) as j (j.index)}
        <button type="button" class="link-copper far" onclick={() => banksTable.show(j.join.id || String(j.index))}
          >{nameOf(banks[j.a])} › {nameOf(banks[j.b])}{j.join.amps === null
            ? ''
            : `, ${say(j.join.amps, 'rating')}`}</button
        >
      {/each}
      <button type="button" class="link-copper far" onclick={() => banksTable.show()}>banks and joins</button>
    </div>
    <PlugSign />
  </div>
{/if}

<style>
  .strip {
    display: flex;
    align-items: stretch;
    gap: 12px;
    padding: 2px 16px 6px;
    height: 62px;
    min-width: 0;
  }
  .banks {
    display: flex;
    align-items: stretch;
    flex: 1;
    min-width: 0;
  }
  .gap {
    display: flex;
    flex: 1 1 70px;
    min-width: 10px;
    max-width: 180px;
    overflow: hidden;
  }
  .bank {
    display: flex;
    align-items: center;
    gap: 10px;
    flex: 0 1 270px;
    min-width: 0;
    padding: 4px 10px;
    border: 1px solid var(--ink-3);
    text-align: left;
    cursor: pointer;
    overflow: hidden;
  }
  .bank.on {
    background: var(--sheet);
    border: 1.5px solid var(--ink);
  }
  .words {
    display: flex;
    flex-direction: column;
    min-width: 0;
  }
  .name {
    display: flex;
    align-items: center;
    gap: 6px;
    font-size: 13px;
    min-width: 0;
  }
  .name b {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .figures {
    display: flex;
    gap: 8px;
    font-size: 13px;
    white-space: nowrap;
  }
  .ends {
    display: flex;
    flex-direction: column;
    justify-content: center;
    align-items: flex-start;
    flex: none;
    max-width: 190px;
    font-size: 12px;
  }
  .far {
    min-height: 18px;
    max-width: 190px;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  /* Many side by side: volts over energy, copper without its words, and less of the plug. */
  .close .bank {
    padding: 2px 4px;
  }
  .close .figures {
    flex-direction: column;
    gap: 0;
    font-size: 12px;
    line-height: 1.1;
  }
  .close .gap {
    flex: 0 1 22px;
  }
  .close .gap :global(.copper-join span) {
    display: none;
  }
  .close .ends,
  .close .far {
    max-width: 110px;
  }
  .close :global(.plug) {
    width: 232px;
  }
  @media (max-width: 1149px) {
    .bank {
      padding: 4px 6px;
      gap: 6px;
    }
  }
  .list {
    border-bottom: 1px solid var(--hair);
  }
  .row {
    flex: 1;
    min-width: 0;
    min-height: 48px;
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 4px 12px;
    border-top: 1px solid var(--hair);
    font-size: 14px;
    text-align: left;
  }
  .row b {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .row.on {
    background: var(--sheet);
  }
  .others {
    min-width: 96px;
    min-height: 48px;
    border-top: 1px solid var(--hair);
    border-left: 1px solid var(--hair);
    color: var(--copper-text);
    font-weight: 650;
  }
  .between {
    display: block;
    min-height: 44px;
    width: 100%;
    padding: 0 12px 0 34px;
    text-align: left;
    border-left: 4px solid var(--copper);
    font-size: 13px;
  }
</style>
