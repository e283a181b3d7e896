<script lang="ts">
  import { tinykeys } from 'tinykeys'
  import { untrack } from 'svelte'
  import Conflict from '../app/Conflict.svelte'
  import { keeper } from '../app/keeper.svelte'
  import { route } from '../app/route.svelte'
  import { session } from '../app/session.svelte'
  import { undoKeys } from '../app/undoKeys'
  import TitleLine from '../app/TitleLine.svelte'
  import { stationOf, stations } from '../stations'
  import { isOwn, pretty, schools, takeRule, takeSchool } from '../ui/houseRules'
  import type { School } from '../ui/houseRules'
  import Working from '../ui/Working.svelte'
  import RuleFunction from './RuleFunction.svelte'
  import RuleTable from './RuleTable.svelte'
  import { rules } from './rules.svelte'
  import SchoolLines from './SchoolLines.svelte'

  /** The schools side by side: every rule's values with what each alone would change, and the whole design under each. */
  const PAUSE_MS = 200
  $effect(() => {
    void session.id
    void session.bankIndex
    untrack(() => {
      rules.reset()
      rules.open = route.rule
      session.release()
    })
  })
  $effect(() => {
    if (!session.evaluation) return
    void session.bankIndex
    const timer = setTimeout(() => {
      void rules.search()
      rules.ask()
    }, PAUSE_MS)
    return () => clearTimeout(timer)
  })
  $effect(() => () => untrack(() => rules.stop()))
  $effect(() => {
    return tinykeys(
      window,
      undoKeys({
        Escape: (e: KeyboardEvent) => {
          if (!(e.target as HTMLElement).closest('input, select, dialog')) route.go(route.back)
        },
      }),
    )
  })

  const table = $derived(session.reference!.houseRules)
  const own = $derived(table.filter(isOwn))
  const set = $derived(session.design!.houseRules.set)
  const open = $derived(table.find((r) => r.id === rules.open) ?? null)
  const names: Record<School, string> = { cautious: 'Cautious', typical: 'Typical', lean: 'Lean' }
  const place = $derived.by(() => {
    const at = route.back.split('/')[3] ?? 'bank'
    const station = stations.find((s) => s.id === at)
    return station ? stationOf(station.id).name : at.charAt(0).toUpperCase() + at.slice(1).replace('-', ' ')
  })
  const tried = $derived.by(() => {
    const x = rules.tried
    const curve = rules.curve
    if (x === null || !curve?.built || !open || curve.rule !== open.id) return null
    const at = curve.points.filter((p) => p.at <= x + 1e-9).at(-1) ?? curve.points[0]
    return at.enough
      ? `At ${pretty(open, String(x))} ${curve.built.enough}`
      : `At ${pretty(open, String(x))} it takes ${at.text}, and ${curve.built.notEnough}`
  })
  const headline = $derived(
    tried ??
      rules.headline ??
      (session.result?.loads
        ? 'Trying every rule on the whole design'
        : 'The schools can be chosen now; what they change appears with the first load'),
  )
  /** Of what is to be given back, what it would turn; asked once more before it is done. */
  let asking = $state<string | null>(null)
  function giveBack(id: string) {
    const rule = table.find((r) => r.id === id)!
    if (rules.rows.get(id)?.giveBack && asking !== id) {
      asking = id
      return
    }
    asking = null
    takeRule(rule, null)
  }
</script>

<div class="bench">
  <TitleLine />
  <main class="sheet">
    <div class="left">
      <h1 class="headline" data-testid="headline">{headline}</h1>
      <p class="note" data-testid="character">
        House rules of this design: <b>{names[set]}</b>{own.length === 0
          ? ''
          : own.length === 1
            ? ', with one of your own'
            : `, with ${own.length} of your own`}. Behind each value: what it alone would change.
        {#if rules.told}<span role="alert">{rules.told}</span>{:else if rules.running}<span role="status"
            >{rules.worked} of {rules.of} tried.</span
          >{/if}
      </p>
      <RuleTable />
      <p class="acts">
        {#each schools.filter((s) => s !== set || own.length > 0) as school (school)}
          <button type="button" class="link-copper" onclick={() => takeSchool(school)}
            >take {names[school]} whole</button
          >
        {/each}
        {#each own as rule (rule.id)}
          {@const turns = rules.rows.get(rule.id)?.giveBack}
          <span class="give">
            <button type="button" class="link-copper" onclick={() => giveBack(rule.id)}
              >give back {pretty(rule, String(session.design!.houseRules.own[rule.id as never]))}</button
            >
            {#if asking === rule.id && turns}
              <span class="warn" role="alert" data-testid="turns"
                >That turns the design: {turns}.
                <button type="button" class="link-copper" onclick={() => giveBack(rule.id)}
                  >give it back all the same</button
                >
                <button type="button" class="link-copper" onclick={() => (asking = null)}>keep it</button></span
              >
            {/if}
          </span>
        {/each}
      </p>
      <p class="caution">
        Schools differ in how much they trust; none of them is above local codes and makers’ instructions, which come
        first wherever they ask for more.
      </p>
    </div>
    <div class="right">
      <p class="back"><a class="link-copper" href={route.back}>back to {place}</a> <span class="caption">Esc</span></p>
      <SchoolLines />
      {#if open}<RuleFunction rule={open} />{:else}
        <p class="note mt-3">
          Press a rule’s name: what either side says for it, and what it asks for over its values.
        </p>
      {/if}
    </div>
  </main>
  <Working about={rules.open} />
</div>
{#if keeper.conflict}<Conflict />{/if}

<style>
  .bench {
    display: grid;
    grid-template: auto minmax(0, 1fr) auto / minmax(0, 1fr);
    height: 100dvh;
  }
  .sheet {
    display: grid;
    grid-template-columns: minmax(0, 1.42fr) minmax(0, 1fr);
    margin: 4px 16px 0;
    background: var(--sheet);
    border: 1.5px solid var(--ink);
    min-height: 0;
  }
  .left,
  .right {
    padding: 10px 16px 8px;
    overflow: auto;
    min-height: 0;
    position: relative;
  }
  /* The heads of the columns stay, the rules go by beneath them. */
  .left {
    display: flex;
    flex-direction: column;
    overflow: hidden;
  }
  .right {
    border-left: 1px solid var(--hair);
  }
  .back {
    text-align: right;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    margin-top: 6px;
    font-size: 12.5px;
  }
  .acts button {
    min-height: 24px;
  }
  .warn {
    display: inline-block;
    border: 1px solid var(--ink);
    padding: 2px 8px;
    background: var(--ink);
    color: var(--sheet);
  }
  .warn button {
    color: var(--sheet);
    margin-left: 8px;
  }
  @media (max-width: 939px) {
    .bench {
      display: block;
      height: auto;
    }
    .sheet {
      grid-template-columns: minmax(0, 1fr);
      margin: 0;
      border-inline: 0;
    }
    .left,
    .right {
      display: block;
      padding: 12px;
      overflow: visible;
    }
    .right {
      border-left: 0;
      border-top: 1px solid var(--hair);
    }
    .acts button,
    .back a {
      min-height: 44px;
      display: inline-flex;
      align-items: center;
    }
  }
</style>
