<script lang="ts">
  import { guessing } from '../app/guessing.svelte'
  import { session } from '../app/session.svelte'
  import { show } from './quantity'
  import EquationLine from './EquationLine.svelte'
  import HouseRule from './HouseRule.svelte'

  /** The written-out equation of the selected figure, each number underlined by where it comes from. */
  interface Props {
    /** The rule that is looked at, where one is. */
    about?: string | null
    /** Another design's: its rules are told here and not changed. */
    told?: boolean
  }
  let { about = null, told = false }: Props = $props()
  const equation = $derived(session.equation)
  const rule = $derived.by(() => {
    const id = about ?? equation?.houseRule ?? equation?.terms.find((t) => t.origin === 'house-rule')?.ref
    return session.reference!.houseRules.find((r) => r.id === id) ?? null
  })
</script>

<section class="working" aria-label="Working">
  {#if equation && !told && guessing.covers(equation.pointer)}
    <p class="caption" data-testid="working-covered">
      The working of this figure is covered:
      <button type="button" class="link-copper" onclick={() => guessing.press(equation.pointer)}>guess it first</button
      >.
    </p>
  {:else if equation}
    {@const head = show(equation.value, equation.unit, session.units, session.design?.display.currency ?? '')}
    <div class="answer">
      <span class="caption">Working</span>
      <span class="fig text-[30px] leading-none" data-testid="working-value"
        >{head.text}<span class="text-[18px] ml-1">{head.unit}</span></span
      >
      <span class="caption">{session.aside ? `${session.aside.label}: ` : ''}{equation.label}</span>
      {#if session.trail.length > 0}<button
          type="button"
          class="link-copper text-[12px] text-left min-h-6"
          onclick={() => session.back()}>‹ back</button
        >{/if}
    </div>
    <div class="equation" data-testid="working">
      <EquationLine {equation} />
      <p class="origins caption">
        <span class="val from-you">you</span><span class="val from-data-sheet">data sheet</span><span
          class="val from-house-rule">house rule</span
        ><span class="val from-table">table, typical</span><span class="val from-assumed">assumed</span><span
          class="val from-worked-out">worked out, open it</span
        >
        <a class="link-copper" href="/method.html#m{equation.method.replace('.', '-')}" target="_blank" rel="noreferrer"
          >method {equation.method}</a
        >
        <a class="link-copper" href="#/d/{session.id}/tape">all working</a>
      </p>
    </div>
    <div class="rule">
      {#if rule && told}<span class="caption">House rule</span>
        <p><b>{rule.label}</b></p>
        <p class="caption">{rule.sentence}</p>{:else if told}<span></span>{:else if rule}<HouseRule {rule} />{:else}<a
          class="link-copper"
          href="#/d/{session.id}/rules">House rules</a
        >{/if}
    </div>
  {:else}
    <p class="caption">
      Every figure in the <span class="fig text-[13px]">narrow type</span> opens its working here: the formula, the
      numbers put in, and where each comes from. By which school:
      <a class="link-copper" href="#/d/{session.id}/rules">house rules</a>.
    </p>
  {/if}
</section>

<style>
  .working {
    display: grid;
    grid-template-columns: 146px minmax(0, 1fr) 272px;
    gap: 16px;
    padding: 8px 16px;
    height: 118px;
    overflow: auto;
    align-items: start;
  }
  .working > p {
    grid-column: 1 / -1;
  }
  .answer {
    display: flex;
    flex-direction: column;
    gap: 3px;
  }
  .val {
    font-size: 17px;
    line-height: 22px;
    white-space: nowrap;
  }
  .origins {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    margin-top: 6px;
  }
  .origins .val {
    font-size: 11.5px;
    line-height: 14px;
  }
  @media (max-width: 939px) {
    .working {
      grid-template-columns: 1fr;
      padding-bottom: 16px;
      height: auto;
    }
  }
</style>
