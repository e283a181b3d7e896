<script lang="ts">
  import { api } from '../api/client'
  import type { HouseRule } from '../api/client'
  import { session } from '../app/session.svelte'
  import { current, isOwn, pretty, same, schools, takeRule } from './houseRules'

  /** The house rule behind a figure: what the other schools would say, to be taken with one press. */
  let { rule }: { rule: HouseRule } = $props()
  const here = $derived(current(rule))
  /** What giving it back would turn; asked before it is done. */
  let turns = $state<{ of: string; words: string } | null>(null)
  async function back() {
    const words =
      turns?.of === rule.id ? null : await api.giveBack(session.worked!, session.bankIndex, rule.id).catch(() => null)
    if (words) turns = { of: rule.id, words }
    else {
      turns = null
      takeRule(rule, null)
    }
  }
  /** What the other schools say, each value once. */
  const others = $derived(
    schools.filter((s, i) => !same(rule[s], here) && schools.findIndex((o) => same(rule[o], rule[s])) === i),
  )
</script>

<div class="text-[12.5px]">
  <div class="caption">
    House rule · <a class="link-copper" href="#/d/{session.id}/rules/{rule.id}">schools side by side</a>
  </div>
  <p class="leading-snug">
    {rule.label}: <b class="text-(--copper-text)">{pretty(rule, here)}</b>{isOwn(rule) ? ', your own' : ''}
  </p>
  <p class="caption leading-snug">{rule.sentence}</p>
  {#if turns?.of === rule.id}<p class="leading-snug" role="alert" data-testid="set-turns">
      <b>That turns the design: {turns.words}.</b>
    </p>{/if}
  <p class="flex flex-wrap gap-x-3">
    {#each others as school (school)}
      <button type="button" class="link-copper min-h-6" onclick={() => takeRule(rule, rule[school])}
        >{school}: {pretty(rule, rule[school])}</button
      >
    {/each}
    {#if isOwn(rule)}<button type="button" class="link-copper min-h-6" onclick={back}
        >{turns?.of === rule.id ? 'give it back all the same' : 'back to the set'}</button
      >{/if}
  </p>
</div>
