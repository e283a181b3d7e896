<script lang="ts">
  import type { HouseRule } from '../api/client'
  import { isOther } from '../ui/houseRules'
  import RuleLine from './RuleLine.svelte'
  import { rules } from './rules.svelte'
  import { session } from '../app/session.svelte'
  import { isOwn } from '../ui/houseRules'

  /** Each rule a row, each school a column; what touches nothing folds away. */
  const ORDER = ['loads', 'inverter', 'voltage', 'bank', 'cables', 'charging', 'money']
  const table = $derived(
    [...session.reference!.houseRules].sort((a, b) => ORDER.indexOf(a.group) - ORDER.indexOf(b.group)),
  )
  const touches = (r: HouseRule) =>
    isOwn(r) || rules.open === r.id || !rules.rows.has(r.id) || rules.rows.get(r.id)!.touches
  const shown = $derived(table.filter((r) => (touches(r) && !isOther(r)) || isOwn(r)))
  const folded = $derived(table.filter((r) => !shown.includes(r)))
  const elsewhere = $derived(folded.filter((r) => rules.rows.get(r.id)?.elsewhere))
</script>

<div class="table" role="group" aria-label="House rules">
  <div class="heads">
    <span></span>
    <span><b>Cautious</b><span class="caption">room for what comes</span></span>
    <span><b>Typical</b><span class="caption">what most build</span></span>
    <span><b>Lean</b><span class="caption">buys what is used</span></span>
    <span><b>Your own</b><span class="caption">typed or dragged</span></span>
  </div>
  <div class="rows">
    {#each shown as rule, i (rule.id)}
      <RuleLine {rule} before={shown[i - 1] ?? null} first={i > 0 && shown[i - 1].group !== rule.group} />
    {/each}
    <p class="fold">
      <span class="note"
        >{folded.length} rules touch no figure of this design{elsewhere.length > 0
          ? `; ${elsewhere.length} of them count elsewhere`
          : ''}:
      </span><button
        type="button"
        class="link-copper"
        aria-expanded={rules.all}
        onclick={() => (rules.all = !rules.all)}>{rules.all ? 'fold them away' : 'show'}</button
      >
    </p>
    {#if rules.all}
      {#each folded as rule, i (rule.id)}
        <RuleLine {rule} before={folded[i - 1] ?? null} first={i > 0 && folded[i - 1].group !== rule.group} />
      {/each}
    {/if}
  </div>
</div>

<style>
  .table {
    margin-top: 6px;
    display: flex;
    flex-direction: column;
    min-height: 120px;
    flex: 1;
    --cols: minmax(120px, 1.25fr) minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1fr) 92px;
  }
  .heads {
    display: grid;
    grid-template-columns: var(--cols);
    align-items: end;
    border-bottom: 1px solid var(--hair);
    padding-bottom: 3px;
  }
  .heads > span {
    display: flex;
    flex-direction: column;
    padding-left: 18px;
  }
  .heads b {
    font-size: 14px;
  }
  .rows {
    overflow: auto;
    min-height: 0;
    /* No line is cut through: what goes on below fades. */
    padding-bottom: 18px;
    mask-image: linear-gradient(to bottom, #000 calc(100% - 18px), transparent);
  }
  .fold {
    margin-top: 5px;
    font-size: 12.5px;
  }
  .fold button {
    min-height: 24px;
  }
  @media (max-width: 939px) {
    .table {
      display: block;
    }
    .heads {
      display: none;
    }
    .rows {
      mask-image: none;
      overflow: visible;
    }
    .fold button {
      min-height: 44px;
    }
  }
</style>
