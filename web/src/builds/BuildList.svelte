<script lang="ts">
  import { known, num, say } from '../ui/quantity'
  import { builds, styleWord } from './bench.svelte'

  /** Every build that was worked out, those that fit first; the ones with a fault or a danger apart, with the reason. */
  let { money }: { money: (value: number) => string } = $props()
  let all = $state(false)
  const FEW = 12
  const good = $derived(builds.list.filter((b) => b.fits && b.key !== builds.presentKey))
  const bad = $derived(builds.list.filter((b) => !b.fits))
  const shown = $derived(all ? good.slice(0, 200) : good.slice(0, FEW))
</script>

<section aria-labelledby="list-title" class="mt-3">
  <h3 id="list-title" class="font-bold text-[13.5px]">All builds that can be made, {num(good.length)}</h3>
  <div class="overflow-x-auto">
    <table class="table table-xs" data-testid="builds-list">
      <thead
        ><tr
          ><th scope="col">build</th><th scope="col">system</th><th scope="col">whole cost</th><th scope="col"
            >usable</th
          ><th scope="col">AC</th><th scope="col">connections</th><th scope="col">lift</th><th scope="col"
            >a delivered kWh</th
          ><th scope="col"></th></tr
        ></thead
      >
      <tbody>
        {#each shown as b (b.key)}
          {@const here = builds.keys.includes(b.key)}
          <tr class={[here && 'here']} data-key={b.key}>
            <th scope="row">{b.name}</th>
            <td
              >{b.choice.systemV} V, {b.choice.series}S{b.choice.parallel}P{b.choice.parallel > 1
                ? `, ${styleWord[b.choice.style]}`
                : ''}</td
            >
            <td class="fig">{b.bill.unknown.length > 0 ? 'not known' : money(b.bill.total)}</td>
            <td class="fig">{say(b.usableWh, 'Wh')}</td>
            <td class="fig">{b.continuousW === null ? '' : `${num(b.continuousW)} W`}</td>
            <td class="fig">{b.bill.connections}</td>
            <td class="fig">{known(b.heaviestKg, (v) => `${num(v, 1)} kg`)}</td>
            <td class="fig">{b.perDeliveredKwh === null ? '' : num(b.perDeliveredKwh, 2)}</td>
            <td>
              {#if here}<button
                  type="button"
                  class="link-copper min-h-6"
                  onclick={() => builds.put(builds.keys.filter((k) => k !== b.key))}>take away</button
                >
              {:else if builds.full}<span class="note">five are shown</span>
              {:else}<button
                  type="button"
                  class="link-copper min-h-6"
                  aria-label="compare {b.name}"
                  onclick={() => builds.put([...builds.keys, b.key])}>compare</button
                >{/if}
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if good.length > FEW}<button type="button" class="link-copper text-[12.5px] min-h-6" onclick={() => (all = !all)}
      >{all ? 'the cheapest alone' : `all ${num(Math.min(200, good.length))}`}</button
    >{/if}
  {#if bad.length > 0}
    <details class="mt-1">
      <summary class="link-copper text-[12.5px] min-h-6">{num(bad.length)} more have a fault or a danger</summary>
      <ul class="text-[12.5px]" data-testid="builds-wrong">
        {#each bad.slice(0, 100) as b (b.key)}<li>
            <b>{b.name}</b>, {b.choice.systemV} V {b.choice.series}S{b.choice.parallel}P: {b.wrong.join('; ')}
          </li>{/each}
      </ul>
    </details>
  {/if}
  {#if builds.screening}
    <details class="mt-1">
      <summary class="link-copper text-[12.5px] min-h-6"
        >{num(builds.screening.candidates - builds.screening.of)} ruled out by volts or count</summary
      >
      <ul class="text-[12.5px]">
        {#each builds.screening.out as o (o.reason)}<li>{num(o.count)}: {o.reason}</li>{/each}
      </ul>
    </details>
  {/if}
</section>

<style>
  .table th,
  .table td {
    font-size: 12.5px;
    padding: 2px 6px;
  }
  .table .fig,
  .table button {
    white-space: nowrap;
  }
  .table .fig {
    font-size: 13.5px;
  }
  .here {
    background: var(--tint);
  }
  tbody th {
    min-width: 150px;
  }
  @media (max-width: 939px) {
    button,
    summary {
      min-height: 44px;
    }
  }
</style>
