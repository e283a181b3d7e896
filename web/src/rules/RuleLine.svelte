<script lang="ts">
  import type { HouseRule } from '../api/client'
  import { session } from '../app/session.svelte'
  import TypedField from '../ui/TypedField.svelte'
  import { current, pretty, same, schools, takeRule, typeRule } from '../ui/houseRules'
  import type { School } from '../ui/houseRules'
  import { answer, parse } from '../ui/quantity'
  import { rules } from './rules.svelte'

  /** One rule: a choice a school, its own value, the band through what holds, and what either side says for itself. */
  interface Props {
    rule: HouseRule
    /** The rule above, for the band goes from there. */
    before: HouseRule | null
    /** The first of its group. */
    first: boolean
  }
  let { rule, before, first }: Props = $props()
  const row = $derived(rules.rows.get(rule.id) ?? null)
  const open = $derived(rules.open === rule.id)
  const here = $derived(current(rule))
  const names = { cautious: 'Cautious', typical: 'Typical', lean: 'Lean' }

  /** The column that holds: a school's, where it has the value, the set's own first; else one's own, the fourth. */
  function columnOf(r: HouseRule): number {
    const value = current(r)
    const set = session.design!.houseRules.set
    if (same(r[set], value)) return schools.indexOf(set)
    const school = schools.findIndex((s) => same(r[s], value))
    return school >= 0 ? school : 3
  }
  const column = $derived(columnOf(rule))
  const from = $derived(before ? columnOf(before) : column)
  /** A value that neighbours share is written out once: at typical, where it is typical’s. */
  const written = (s: School) => s === 'typical' || !same(rule[s], rule.typical)
  const effect = (s: School) => row?.choices.find((c) => same(c.value, rule[s]))?.effect ?? ''
  /** Words that no school holds. */
  const others = $derived(rule.words.filter((w) => !schools.some((s) => same(rule[s], w))))
  const ownEffect = $derived(row?.choices.find((c) => others.includes(c.value) && c.value === here)?.effect ?? '')

  function move(e: KeyboardEvent) {
    if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return
    e.preventDefault()
    const to = Math.min(2, Math.max(0, (column === 3 ? 1 : column) + (e.key === 'ArrowRight' ? 1 : -1)))
    takeRule(rule, rule[schools[to]])
    const radios = (e.currentTarget as HTMLElement).closest('.row')!.querySelectorAll<HTMLElement>('[role=radio]')
    radios[to]?.focus()
  }

  function read(typed: string) {
    const text = typed.trim().toLowerCase()
    if (text === '') return {}
    const word = rule.words.find((w) => w.replace(/-/g, ' ') === text.replace(/-/g, ' '))
    if (word) {
      typeRule(rule, word)
      return { understood: pretty(rule, word) }
    }
    if (rule.type === 'word') return { reason: `takes ${rule.words.map((w) => w.replace(/-/g, ' ')).join(', ')}` }
    const unit = rule.unit === 'per hour' ? 'c' : rule.unit.toLowerCase()
    const bare = unit && unit !== 'fraction' && text.endsWith(unit) ? text.slice(0, -unit.length).trim() : text
    const fits = (v: number) => v > 0 && v >= rule.least && v <= rule.greatest
    const parsed = parse(bare, rule.unit === 'fraction' ? 'share' : 'number', 'metric', fits)
    if ('value' in parsed && !fits(parsed.value))
      return {
        reason: `must be ${rule.least > 0 ? `from ${pretty(rule, String(rule.least))}` : 'above 0'} to ${pretty(rule, String(rule.greatest))}`,
      }
    return answer(
      parsed,
      (v) => pretty(rule, String(v)),
      (v) => typeRule(rule, String(v)),
    )
  }
  const ownText = $derived(column === 3 ? pretty(rule, here) : '')
  let wide = $state(1280)
  const narrow = $derived(wide < 940)
</script>

<svelte:window bind:innerWidth={wide} />
<div class={['row', open && 'open', first && 'first']} data-rule-id={rule.id}>
  <div class="line">
    <button type="button" class="name" aria-expanded={open} onclick={() => rules.toggle(rule)} onkeydown={move}>
      {rule.label}
    </button>
    {#if before && from !== column}
      <span class="jog" style:grid-column="{Math.min(from, column) + 2} / {Math.max(from, column) + 2}"></span>
    {/if}
    <div class="radios" role="radiogroup" aria-label={rule.label}>
      {#each schools as school, i (school)}
        {@const on = column === i}
        {@const holds = same(rule[school], here)}
        <button
          type="button"
          role="radio"
          aria-checked={holds}
          aria-label="{names[school]}: {pretty(rule, rule[school])}{effect(school) ? `, ${effect(school)}` : ''}"
          tabindex={on || (column === 3 && i === 1) ? 0 : -1}
          class={['cell', on && 'on']}
          style:grid-column={i + 1}
          onclick={() => takeRule(rule, rule[school])}
          onkeydown={move}
        >
          {#if on}<span class="band"></span>{/if}
          <span class="dot"></span>
          <span class="says"
            ><span class="school">{names[school]} </span>{#if written(school)}<b>{pretty(rule, rule[school])}</b
              >{#if effect(school)}
                <span class="effect">{effect(school)}</span>{/if}{:else}<span class="same"
                ><span class="wide">same</span><span class="narrow">{pretty(rule, rule[school])}</span></span
              >{/if}</span
          >
        </button>
      {/each}
    </div>
    <div class={['cell own', column === 3 && 'on', rule.type === 'word' && others.length === 0 && 'empty']}>
      {#if column === 3}<span class="band"></span><span class="dot"></span>{/if}
      {#if rule.type !== 'word'}
        <TypedField
          label="Your own: {rule.label}"
          hideLabel
          placeholder={narrow ? 'your own' : ''}
          text={ownText}
          {read}
          snapshot={() => [{ path: '/houseRules/own', value: session.design!.houseRules.own }]}
          width="66px"
          path="/houseRules/own/{rule.id}"
          faultsAt={[`/houseRules/own/${rule.id}`]}
        />
      {:else if others.length > 0}
        <select
          class="select select-xs"
          aria-label="Your own: {rule.label}"
          value={others.includes(here) ? here : ''}
          onchange={(e) => e.currentTarget.value && takeRule(rule, e.currentTarget.value)}
        >
          <option value="">other</option>
          {#each others as word (word)}<option value={word}>{pretty(rule, word)}</option>{/each}
        </select>
        {#if ownEffect}<span class="effect">{ownEffect}</span>{/if}
      {/if}
    </div>
  </div>
  {#if open}
    <div class="why">
      <p>{rule.sentence}</p>
      <p><b>Careful:</b> {rule.careful}</p>
      <p><b>Spare:</b> {rule.spare}</p>
      {#if row?.elsewhere}<p>This rule {row.elsewhere}.</p>{/if}
    </div>
  {/if}
</div>

<style>
  .row {
    position: relative;
    border: 1px solid transparent;
  }
  .first {
    border-top-color: var(--hair);
  }
  .open {
    background: var(--tint);
    border-color: var(--ink);
  }
  .line {
    display: grid;
    grid-template-columns: var(--cols);
    align-items: stretch;
    position: relative;
  }
  .name {
    text-align: left;
    font-size: 12.5px;
    line-height: 1.15;
    padding: 2px 4px;
    cursor: pointer;
    min-height: 24px;
  }
  .open .name {
    font-weight: 700;
  }
  .name:hover {
    text-decoration: underline;
    text-underline-offset: 2px;
  }
  .radios {
    grid-column: 2 / 5;
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .cell {
    position: relative;
    display: flex;
    align-items: center;
    text-align: left;
    padding: 2px 4px 2px 18px;
    font-size: 12.5px;
    line-height: 1.15;
    min-width: 0;
    min-height: 24px;
    cursor: pointer;
  }
  .own {
    cursor: default;
  }
  .own :global(.input) {
    height: 22px;
    font-size: 12.5px;
    border-color: transparent;
    border-bottom-color: var(--hair);
    background: none;
  }
  .own.on :global(.input) {
    border-bottom: 3px double var(--copper);
    color: var(--copper-text);
    font-weight: 700;
  }
  .own :global(.select) {
    width: 72px;
    font-size: 12px;
    height: 22px;
    min-height: 22px;
  }
  .dot {
    position: absolute;
    left: 3px;
    top: calc(50% - 5px);
    width: 10px;
    height: 10px;
    border: 1.3px solid var(--ink-3);
    border-radius: 50%;
    background: var(--sheet);
    z-index: 2;
  }
  .on > .dot {
    background: var(--copper);
    border-color: var(--copper);
  }
  /* The design's character: a band of copper through what holds. */
  .band {
    position: absolute;
    left: 4px;
    top: -1px;
    bottom: -1px;
    width: 8px;
    background: var(--copper-body);
    z-index: 1;
  }
  .jog {
    position: absolute;
    top: -4px;
    left: 4px;
    right: -12px;
    height: 8px;
    background: var(--copper-body);
    z-index: 1;
    pointer-events: none;
  }
  .says {
    min-width: 0;
    z-index: 2;
  }
  .says b {
    font-weight: 700;
    margin-right: 4px;
  }
  .on .says b {
    color: var(--copper-text);
  }
  .effect,
  .same {
    color: var(--ink-2);
  }
  .school,
  .narrow {
    display: none;
  }
  .why {
    padding: 2px 6px 6px;
    font-size: 12.5px;
    max-width: 74ch;
  }
  .why p {
    margin-top: 2px;
  }
  @media (max-width: 939px) {
    .row {
      border-top-color: var(--hair);
      padding: 6px 0;
    }
    .line {
      display: block;
    }
    .jog,
    .band {
      display: none;
    }
    .name {
      min-height: 44px;
      width: 100%;
      font-size: 14px;
      font-weight: 700;
    }
    .radios {
      gap: 6px;
    }
    .cell {
      min-height: 44px;
      border: 1px solid var(--ink-3);
      align-items: flex-start;
      padding-top: 5px;
    }
    .cell.on {
      background: var(--copper-body);
    }
    .own {
      padding-left: 0;
      border: 0;
      background: none !important;
      margin-top: 6px;
      align-items: center;
    }
    .own :global(.input) {
      height: 44px;
      font-size: 16px;
      border-color: var(--ink-3);
    }
    .own.empty {
      display: none;
    }
    .own :global(.select) {
      height: 44px;
      width: 160px;
    }
    .dot {
      top: 8px;
    }
    .own .dot {
      top: calc(50% - 5px);
    }
    .school {
      display: block;
      color: var(--ink-2);
    }
    .narrow {
      display: inline;
    }
    .wide {
      display: none;
    }
  }
</style>
