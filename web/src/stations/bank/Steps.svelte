<script lang="ts">
  import { api } from '../../api/client'
  import type { BankStep } from '../../api/client'
  import { following } from '../../app/following.svelte'
  import { session } from '../../app/session.svelte'
  import { known, num, say } from '../../ui/quantity'

  /** What another string, one less, or another unit would bring, worked out whole before it is taken. */
  const steps = following(api.bankSteps)
  const list = $derived(steps.list)

  const signed = (text: string, value: number) => `${value > 0 ? '+' : ''}${text}`

  function outcome(s: BankStep): string {
    const parts = [
      `${s.series}S${s.parallel}P, ${say(s.usableWh, 'Wh')} usable (${signed(say(s.moreWh, 'Wh'), s.moreWh)})`,
    ]
    if (s.allowsAcW !== null) parts.push(`lets ${num(s.allowsAcW)} W through`)
    if (s.worstShare !== null && s.parallel > 1) parts.push(`worst share ${say(s.worstShare, 'fraction')}`)
    parts.push(
      s.morePrice === null
        ? `price ${known(s.price, num)}`
        : `price ${num(s.price!)} (${signed(num(s.morePrice), s.morePrice)})`,
      known(s.massKg, (kg) => say(kg, 'kg', session.units)),
    )
    if (s.wrong !== s.wrongNow)
      parts.push(s.wrong > s.wrongNow ? `${s.wrong - s.wrongNow} wrong more` : `${s.wrongNow - s.wrong} wrong less`)
    return parts.join(' · ')
  }
</script>

{#if list.length > 0}
  <section class="onward" aria-labelledby="steps-title" data-testid="bank-steps">
    <h3 id="steps-title" class="caption mb-1">A step on</h3>
    {#each list as s (s.title)}
      <button
        type="button"
        class="link-copper text-left text-[13px] min-h-6"
        onclick={() => session.edit(s.changes, true)}>{s.title}</button
      >
      <p class="note mb-1.5">{outcome(s)}</p>
    {/each}
  </section>
{/if}

<style>
  .onward {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
    margin-top: 6px;
  }
  @media (max-width: 939px) {
    .onward button {
      min-height: 44px;
    }
  }
</style>
