<script lang="ts">
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'

  /** The bank had another chemistry: everything in this design that must follow, each item with its day. */
  const changeover = $derived(session.result!.charging!.changeover)
  const changed = $derived(session.bank!.changed)
  const own = $derived(session.result!.bank?.unit.chemistry)
  const chemistries = $derived(session.reference!.chemistries.filter((c) => c.id !== own))
  const left = $derived(changeover?.items.filter((i) => !i.done).length ?? 0)

  function tick(key: string, done: boolean) {
    const rest = changed!.done.filter((d) => d.item !== key)
    session.edit(
      {
        path: '~/changed/done',
        value: done ? rest : [...rest, { item: key, date: new Date().toISOString().slice(0, 10) }],
      },
      true,
    )
  }
</script>

<details class="change" open={changeover !== null}>
  <summary>
    {#if changeover}From {changeover.fromLabel} to {changeover.toLabel}: {left === 0
        ? 'all followed'
        : `${left} still to follow`}{:else}Was it another chemistry before?{/if}
  </summary>
  <ChoiceField
    label="it was"
    value={changed?.from ?? null}
    options={chemistries.map((c) => ({ value: c.id, text: c.label }))}
    none="the same"
    width="200px"
    path="/changed"
    onpick={(from) => session.edit({ path: '~/changed', value: from === null ? null : { from, done: [] } }, true)}
  />
  {#if changeover}
    <ul>
      {#each changeover.items as item (item.key)}
        <li>
          <label>
            <input
              type="checkbox"
              class="checkbox checkbox-xs"
              checked={item.done}
              data-change={item.key}
              onchange={() => tick(item.key, item.done)}
            />
            <span
              ><b>{item.part}</b>: {item.what}{#if item.done && item.date}<span class="caption">
                  {item.date}</span
                >{/if}</span
            >
          </label>
        </li>
      {/each}
    </ul>
  {/if}
</details>

<style>
  .change {
    border-top: 1px solid var(--hair);
    padding-top: 6px;
    margin-top: 8px;
    font-size: 12.5px;
  }
  summary {
    cursor: pointer;
    font-weight: 650;
    min-height: 24px;
  }
  label {
    display: flex;
    gap: 7px;
    align-items: flex-start;
    padding: 3px 0;
    border-top: 1px solid var(--grid);
    cursor: pointer;
  }
  .checkbox {
    flex: none;
    margin-top: 1px;
  }
  @media (max-width: 939px) {
    label,
    summary {
      min-height: 44px;
    }
  }
</style>
