<script lang="ts">
  import { api } from '../../api/client'
  import type { GrownBank } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { newest, orBefore } from '../../ui/newest'
  import { num, say, stringName } from '../../ui/quantity'

  /** Used units as they are, with a string of new ones, or all new: what each gives, costs and for how long. */
  let open = $state(false)
  let answer = $state.raw<GrownBank | null>(null)
  const ask = newest(async () => {
    answer = await orBefore(session.worked, answer, (design) => api.grown(design, session.bankIndex))
  })
  $effect(() => {
    if (open && session.evaluation) void ask()
  })
  const money = (v: number | null) => (v === null ? 'not known' : session.show(v, 'money').text)
</script>

<details bind:open class="grown">
  <summary>Keep them, add to them, or replace them</summary>
  {#if answer}
    <p class="caption">
      Each run down under {say(answer.loadW, 'W')}; {num(answer.cyclesPerYear)} cycles a year. What new units cost is as the
      bill has it.
    </p>
    <table data-testid="grown">
      <thead>
        <tr
          ><th scope="col"></th><th scope="col">gives</th><th scope="col">stranded</th><th scope="col">worst share</th
          ><th scope="col">may give</th><th scope="col">to pay</th><th scope="col">serves</th><th scope="col">a year</th
          ><th></th></tr
        >
      </thead>
      <tbody>
        {#each answer.options as o (o.title)}
          <tr>
            <th scope="row">{o.title}</th>
            <td class="fig">{say(o.deliveredWh, 'Wh')}</td>
            <td class="fig">{say(o.strandedWh, 'Wh')}</td>
            <td class="fig">{stringName(o.worstString)} {say(o.worstShare, 'fraction')}</td>
            <td class="fig">{o.ceilingA === null ? '–' : say(o.ceilingA, 'A')}</td>
            <td class="fig">{money(o.toPay)}</td>
            <td class="fig">{o.yearsLeft === null ? 'not known' : `${num(o.yearsLeft, 1)} years`}</td>
            <td class="fig">{money(o.perYear)}</td>
            <td
              >{#if o.changes.length > 0}<button
                  type="button"
                  class="link-copper"
                  onclick={() => session.edit(o.changes, true)}>take it</button
                >{:else if o.wrong > 0}<span class="caption">{o.wrong} wrong</span>{/if}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
</details>

<style>
  .grown {
    margin-top: 6px;
    overflow-x: auto;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 26px;
  }
  th,
  td {
    text-align: left;
    padding: 2px 12px 2px 0;
    font-size: 12.5px;
    font-weight: 500;
    white-space: nowrap;
  }
  thead th {
    color: var(--ink-2);
    font-weight: 400;
  }
  @media (max-width: 939px) {
    summary,
    .link-copper {
      min-height: 44px;
    }
  }
</style>
