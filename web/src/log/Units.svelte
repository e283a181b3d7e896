<script lang="ts">
  import type { LedgerUnit, LogView } from '../api/client'
  import Mark from '../ui/Mark.svelte'
  import { num, say } from '../ui/quantity'
  import { month } from './days'

  /** The units one by one: where they stand, how they rest, what they held at their tests, when they end, what happened to them. */
  interface Props {
    view: LogView
    onput: (unit: LedgerUnit) => void
  }
  let { view, onput }: Props = $props()
  const here = $derived(view.units.filter((u) => u.place !== null))
  const gone = $derived(view.units.filter((u) => u.place === null))
  const LEAST = 0.78
  const MOST = 1.04
  const x = (share: number) => Math.max(0, Math.min(100, ((share - LEAST) / (MOST - LEAST)) * 100))
</script>

{#if here.length > 0}
  <div class="units">
    <table>
      <caption class="sr-only">Units of the bank</caption>
      <thead>
        <tr>
          <th class="first">{here.length} {here.length === 1 ? 'unit' : 'units'}</th>
          <th>serial</th>
          <th class="wide">in service</th>
          <th class="num">rest volts</th>
          <th class="num">apart</th>
          <th class="tests"><span>80 % of rated</span><span class="hundred">100</span></th>
          <th class="num">ends</th>
          <th>faults and hands</th>
        </tr>
      </thead>
      <tbody>
        {#each here as u (u.place)}
          <tr class={[u.look && 'look']} data-unit={u.place}>
            <td><b>{u.place}</b></td>
            {#if u.asks && !u.serial}
              <td colspan="7" class="asks"
                >{u.asks} · <button type="button" class="link-copper" onclick={() => onput(u)}>put it in</button></td
              >
            {:else}
              <td class="fig">{u.serial}</td>
              <td class="wide">{u.inService ? month(u.inService) : ''}</td>
              <td class="num fig">{u.restV === null ? '' : `${num(u.restV, 2)} V`}</td>
              <td class={['num', 'fig', u.look && 'heavy']}
                >{u.apartMv === null ? '' : `${num(Math.abs(u.apartMv))} mV`}</td
              >
              <td class="tests">
                {#if u.tests.length > 0}
                  <div class="scale">
                    <svg viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
                      <line
                        x1={x(0.8)}
                        x2={x(0.8)}
                        y1="0"
                        y2="10"
                        stroke="var(--ink-2)"
                        vector-effect="non-scaling-stroke"
                        stroke-dasharray="3 2"
                      />
                      <line
                        x1={x(1)}
                        x2={x(1)}
                        y1="0"
                        y2="10"
                        stroke="var(--grid)"
                        vector-effect="non-scaling-stroke"
                      />
                      <line
                        x1={x(Math.min(...u.tests.map((t) => t.share)))}
                        x2={x(Math.max(...u.tests.map((t) => t.share)))}
                        y1="5"
                        y2="5"
                        stroke="var(--ink)"
                        vector-effect="non-scaling-stroke"
                      />
                    </svg>
                    {#each u.tests as t, i (i)}
                      <span
                        class={['dot', i === u.tests.length - 1 && 'last']}
                        style:left="{x(t.share)}%"
                        title="{month(t.day)}: {num(t.share * 100, 1)} %"
                      ></span>
                    {/each}
                  </div>
                  <span class="sr-only"
                    >{num(u.tests.at(-1)!.share * 100, 1)} % at the last of {u.tests.length} tests</span
                  >
                {/if}
              </td>
              <td class="num fig">{u.endsYear ?? ''}</td>
              <td class="words">
                {#if u.look}<Mark kind="look" /> <b>{u.look}</b>{/if}
                {#if u.asks}<b>{u.asks}</b> ·
                  <button type="button" class="link-copper" onclick={() => onput(u)}>put it in</button>{/if}
                {u.look ? '' : (u.words ?? '')}
              </td>
            {/if}
          </tr>
        {/each}
      </tbody>
    </table>
    {#if gone.length > 0}
      <details>
        <summary class="caption">{gone.length} out of service</summary>
        <ul>
          {#each gone as u, i (i)}
            <li>
              <span class="fig">{u.serial}</span>, {u.item}{u.inService
                ? `, in service ${month(u.inService)}`
                : ''}{u.outOfService ? ` to ${month(u.outOfService)}` : ''}{u.price === null
                ? ''
                : `, ${say(u.price, 'money')}`}{u.words ? `: ${u.words}` : ''}
            </li>
          {/each}
        </ul>
      </details>
    {/if}
  </div>
{/if}

<style>
  .units {
    border-top: 1px solid var(--hair);
    padding-top: 4px;
    overflow-x: auto;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 12px;
  }
  th {
    text-align: left;
    font-weight: 400;
    color: var(--ink-2);
    padding: 0 8px 2px 0;
    white-space: nowrap;
  }
  .first {
    font-weight: 700;
    color: var(--ink);
    font-size: 13.5px;
  }
  td {
    padding: 0 8px 0 0;
    height: 18px;
    white-space: nowrap;
  }
  .num {
    text-align: right;
  }
  .heavy {
    font-weight: 700;
  }
  .look td {
    background: var(--tint);
  }
  .tests {
    width: 28%;
    min-width: 120px;
  }
  .scale {
    position: relative;
  }
  .hundred {
    float: right;
    margin-right: 12%;
  }
  svg {
    display: block;
    width: 100%;
    height: 12px;
  }
  .dot {
    position: absolute;
    top: 50%;
    width: 8px;
    height: 8px;
    border: 1px solid var(--ink);
    border-radius: 50%;
    background: var(--sheet);
    transform: translate(-50%, -50%);
  }
  .last {
    background: var(--ink);
  }
  .words {
    white-space: normal;
    min-width: 120px;
  }
  .asks {
    color: var(--ink-2);
  }
  details {
    margin-top: 4px;
    font-size: 12px;
  }
  @media (max-width: 939px) {
    .wide {
      display: none;
    }
    /* It goes on to the right, and its rows stay as high as the others. */
    .words {
      white-space: nowrap;
    }
  }
</style>
