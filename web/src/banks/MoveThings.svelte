<script lang="ts">
  import { session } from '../app/session.svelte'
  import { loadTo, nameOf, sourceTo } from './banks'

  /** Every load and source with the bank it hangs on; another one takes it, with what was chosen of its cable. */
  const banks = $derived(session.design!.banks)
  const things = $derived(
    banks.flatMap((bank, b) => [
      ...(bank.demand.by === 'loads' ? bank.demand.loads : []).map((l, i) => ({
        key: `${bank.id} l ${l.id}`,
        name: l.name || 'unnamed load',
        what: 'load',
        b,
        put: (to: number) => loadTo(session.design!, b, i, to),
      })),
      ...bank.sources.map((s, i) => ({
        key: `${bank.id} s ${s.id}`,
        name: s.name || 'unnamed source',
        what: 'source',
        b,
        put: (to: number) => sourceTo(session.design!, b, i, to),
      })),
    ]),
  )
</script>

<div class="things">
  {#each things as t (t.key)}
    <label class="thing" data-thing={t.name}>
      <span class="name">{t.name}</span>
      <span class="caption">{t.what}</span>
      <select
        class="select select-xs h-[26px]"
        value={String(t.b)}
        aria-label="{t.name} hangs on"
        onchange={(e) => {
          const to = Number(e.currentTarget.value)
          if (to !== t.b) session.edit(t.put(to), true)
        }}
      >
        {#each banks as bank, i (bank.id)}<option value={String(i)}>{nameOf(bank)}</option>{/each}
      </select>
    </label>
  {:else}<p class="caption">No load and no source yet.</p>{/each}
</div>

<style>
  .things {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
    gap: 2px 20px;
  }
  .thing {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 50px 130px;
    align-items: center;
    gap: 8px;
    font-size: 13px;
  }
  .name {
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  @media (max-width: 939px) {
    select {
      min-height: 44px;
    }
  }
</style>
