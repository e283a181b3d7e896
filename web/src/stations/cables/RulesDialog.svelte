<script lang="ts">
  import { api } from '../../api/client'
  import type { RuleEffects } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { hand } from './hand.svelte'
  import Modal from './Modal.svelte'

  /** The house rules of cables and fuses, changed in place; beside each other value stands what it would change here. */
  let rules = $state.raw<RuleEffects[]>([])
  let told = $state('')
  async function ask() {
    try {
      rules = await api.cableRules(session.worked!, session.bankIndex)
      told = ''
    } catch (e) {
      told = e instanceof Error ? e.message : 'The server does not answer.'
    }
  }
  $effect(() => {
    if (hand.dialog === 'rules' && session.evaluation) void ask()
  })

  const table = $derived(new Map(session.reference!.houseRules.map((rule) => [rule.id, rule])))
  function pretty(id: string, value: string): string {
    const number = Number(value)
    if (!Number.isFinite(number)) return value.replace(/-/g, ' ')
    const unit = table.get(id)?.unit
    return unit === 'fraction' ? `${+(number * 100).toFixed(1)} %` : `${number} ${unit}`
  }
  function take(id: string, value: string) {
    const own = { ...session.design!.houseRules.own } as Record<string, unknown>
    own[id] = Number.isFinite(Number(value)) ? Number(value) : value
    if (table.get(id)?.[session.design!.houseRules.set] === value) delete own[id]
    session.edit({ path: '/houseRules/own', value: own }, true)
  }
</script>

<Modal name="rules" title="House rules of cables and fuses" wide>
  {#each rules as rule (rule.rule)}
    <section class="rule" data-rule-id={rule.rule}>
      <h3 class="font-bold text-[13.5px]">{rule.label}</h3>
      <p class="caption">{rule.sentence}</p>
      <ul>
        {#each rule.choices as choice (choice.value)}
          <li>
            <button
              type="button"
              class={['value', choice.here && 'here']}
              aria-pressed={choice.here}
              onclick={() => take(rule.rule, choice.value)}>{pretty(rule.rule, choice.value)}</button
            >
            <span class="note"
              >{choice.here ? 'holds here' : choice.effect}{choice.schools.length > 0
                ? ` · ${choice.schools.join(', ')}`
                : ''}</span
            >
          </li>
        {/each}
      </ul>
    </section>
  {:else}
    <p class="note mt-2" role="status">{told || 'Trying each of them…'}</p>
  {/each}
</Modal>

<style>
  .rule {
    border-top: 1px solid var(--hair);
    padding: 7px 0;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    margin-top: 2px;
  }
  li {
    display: flex;
    align-items: baseline;
    gap: 6px;
  }
  .value {
    border: 1px solid var(--ink-3);
    padding: 1px 8px;
    min-height: 26px;
    font-size: 12.5px;
    cursor: pointer;
  }
  .here {
    background: var(--ink);
    color: var(--sheet);
    font-weight: 700;
  }
  @media (max-width: 939px) {
    .value {
      min-height: 44px;
    }
  }
</style>
