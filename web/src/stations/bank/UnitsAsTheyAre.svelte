<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import QuantityField from '../../ui/QuantityField.svelte'
  import { stringName } from '../../ui/quantity'
  import { blank, indexOf as placeOf, unitFields } from './positions'
  import type { At } from './positions'

  /** Each place of the bank as it really is: another unit, what is left of its capacity, how full it is, a bad joint at its posts. */
  const bank = $derived(session.bank!)
  const layout = $derived(session.result!.bank!.layout)
  const places = $derived(
    Array.from({ length: layout.parallel }, (_, s) =>
      Array.from({ length: layout.series }, (_, u) => ({ string: s + 1, unit: u + 1 })),
    ).flat(),
  )
  const MOST = 64
  const indexOf = (p: At) => placeOf(bank.positions, p)
  const at = (p: At) => (indexOf(p) < 0 ? bank.positions.length : indexOf(p))
  const ensure = (p: At) => () => (indexOf(p) < 0 ? [{ path: '~/positions/-', value: blank(p) }] : [])
  const units = $derived(session.reference!.units.filter((u) => u.chemistry === session.result!.bank!.unit.chemistry))

  function pick(p: At, key: string | null) {
    const item = key === null ? null : units.find((u) => u.key === key)
    session.edit([...ensure(p)(), { path: `~/positions/${at(p)}/item`, value: item ?? null }], true)
  }
</script>

{#if places.length <= MOST}
  <details class="units">
    <summary
      >Units as they really are <span class="caption">{bank.positions.length} of {places.length} differ</span></summary
    >
    <table>
      <thead>
        <tr>
          <th scope="col">unit</th>
          <th scope="col">what stands there</th>
          {#each unitFields as f (f.key)}<th scope="col">{f.label}</th>{/each}
        </tr>
      </thead>
      <tbody>
        {#each places as p (`${p.string} ${p.unit}`)}
          {@const name = `${stringName(p.string)}${p.unit}`}
          <tr data-place={name}>
            <th scope="row">{name}</th>
            <td>
              <ChoiceField
                label="{name}, unit"
                hideLabel
                value={bank.positions[indexOf(p)]?.item?.key ?? null}
                options={units.map((u) => ({ value: u.key, text: u.name }))}
                none={session.result!.bank!.unit.name}
                width="190px"
                onpick={(key) => pick(p, key)}
              />
            </td>
            {#each unitFields as f (f.key)}
              <td
                ><QuantityField
                  label="{name}, {f.label}"
                  hideLabel
                  kind={f.kind}
                  path="/positions/{at(p)}/{f.key}"
                  placeholder={f.empty}
                  ensure={ensure(p)}
                  width={f.width}
                /></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </details>
{/if}

<style>
  .units {
    margin-top: 6px;
    overflow-x: auto;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 26px;
  }
  th {
    text-align: left;
    font-weight: 500;
    padding-right: 8px;
    font-size: 12.5px;
  }
  thead th {
    color: var(--ink-2);
    font-weight: 400;
  }
  td {
    padding: 1px 8px 1px 0;
  }
  @media (max-width: 939px) {
    summary {
      min-height: 44px;
    }
  }
</style>
