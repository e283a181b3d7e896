<script lang="ts">
  import type { LogView } from '../api/client'
  import { api } from '../api/client'
  import { session } from '../app/session.svelte'
  import { num, say } from '../ui/quantity'
  import { long } from './days'
  import Health from './Health.svelte'
  import { log } from './log.svelte'

  /** What the readings teach, how long it lasts as used, what the bank still holds, and what is due. */
  interface Props {
    view: LogView
    ondone: (task: string | null) => void
    ontest: () => void
  }
  let { view, ondone, ontest }: Props = $props()
  const due = $derived(view.upkeep.slice(0, 6))
</script>

<section>
  <h2>What the readings teach</h2>
  {#each view.lessons as l (l.kind + l.title)}
    <div class="lesson" data-lesson={l.kind}>
      <p><b>{l.title}</b> {l.words}</p>
      {#if l.notYet}<p class="caption">{l.notYet}</p>{/if}
      {#if l.label}
        <p class="act">
          <button type="button" class="btn btn-primary btn-sm" onclick={() => log.apply(l)}>{l.label}</button>
          {#if l.outcome}<span class="fig">{l.outcome}</span>{/if}
        </p>
      {/if}
    </div>
  {:else}
    <p class="caption">
      {view.mornings.length === 0
        ? 'Nothing yet: readings teach once there are some.'
        : 'Nothing that the plan does not know.'}
    </p>
  {/each}
</section>
{#if view.hand}
  <section>
    <h2>Days in hand</h2>
    <p>
      {#if view.hand.days === null}<span class="big">for good</span>
      {:else}<span class="big"><span class="fig">{num(view.hand.days, 1)}</span> days</span>{/if}
      <span class="caption"
        >as used, from {num(view.hand.soc * 100)} %{view.hand.plannedDays === null
          ? ''
          : `; the plan said ${num(view.hand.plannedDays, 1)}`}</span
      >
    </p>
    <p class="small">{view.hand.coming}</p>
  </section>
{/if}
<section>
  <h2>Capacity of the whole bank, tested</h2>
  {#if view.health}
    <Health health={view.health} />
    <p class="small">{view.health.words}</p>
  {:else}
    <p class="small">No test yet.</p>
  {/if}
  <button type="button" class="link-copper" onclick={ontest}>write down a test</button>
</section>
<section>
  <h2>Upkeep</h2>
  {#if view.fitted === null}
    <p class="small">Say since when the bank is in use, and what is due follows.</p>
  {:else}
    <ul>
      {#each due as u (u.task)}
        <li class={[u.overdueDays > 0 && 'late']}>
          <button
            type="button"
            class="task"
            title={u.done ? `last on ${long(u.done)}${u.by ? ` by ${u.by}` : ''}` : 'not done yet'}
            onclick={() => ondone(u.task)}>{u.label}</button
          >
          <b class="fig">{u.overdueDays > 0 ? `${say(u.overdueDays, '')} days over` : long(u.due)}</b>
        </li>
      {/each}
    </ul>
  {/if}
  <p class="acts">
    <button type="button" class="link-copper" onclick={() => ondone(null)}>write down what was done</button>
    {#if view.upkeep.length > 0}
      <button
        type="button"
        class="link-copper"
        onclick={() => session.worked && api.saveLog(session.id!, 'upkeep.ics', session.worked, session.bankIndex)}
        >as a calendar</button
      >
    {/if}
  </p>
  <p class="caption">Typical intervals: the maker’s instructions and local rules come first.</p>
</section>

<style>
  section {
    padding: 8px 0;
    border-bottom: 1px solid var(--hair);
  }
  section:last-child {
    border-bottom: 0;
  }
  h2 {
    font-size: 13.5px;
    font-weight: 700;
    margin-bottom: 4px;
  }
  p {
    font-size: 12.5px;
    line-height: 1.35;
  }
  .small {
    font-size: 12px;
  }
  .lesson {
    margin-bottom: 10px;
  }
  .act {
    display: flex;
    gap: 8px;
    align-items: center;
    margin-top: 4px;
    flex-wrap: wrap;
  }
  .big {
    font-size: 20px;
    font-weight: 700;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: baseline;
    border-bottom: 1px solid var(--grid);
    font-size: 12px;
  }
  .task {
    text-align: left;
    cursor: pointer;
    min-height: 24px;
  }
  .task:hover {
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
  li b {
    white-space: nowrap;
  }
  .late {
    background: var(--tint);
  }
  .acts {
    display: flex;
    gap: 12px;
    flex-wrap: wrap;
    margin: 6px 0 4px;
  }
  @media (max-width: 939px) {
    .task,
    .link-copper,
    .btn {
      min-height: 44px;
    }
  }
</style>
