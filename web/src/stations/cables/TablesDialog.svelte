<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import { api } from '../../api/client'
  import type { CopperDrawer, OwnTables } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { sizes } from '../../app/tables'
  import { newest, orBefore } from '../../ui/newest'
  import { num, parse, say, sizeName } from '../../ui/quantity'
  import { hand } from './hand.svelte'
  import Modal from './Modal.svelte'
  import TakeTable from './TakeTable.svelte'

  /** Tables of one's own beside the typical ones, and the copper that lies at hand. */
  let mode = $state<'list' | 'take'>('list')
  let drawer = $state.raw<CopperDrawer | null>(null)
  let size = $state('')
  let metres = $state('')
  let told = $state('')
  const t = $derived(session.design?.tables)
  const ask = newest(async () => {
    drawer = await orBefore(session.worked, drawer, (design) => api.drawer(design, session.bankIndex))
  })
  $effect(() => {
    if (hand.dialog === 'tables' && session.evaluation && t && t.drawer.length > 0) void ask()
  })
  function put(next: Partial<OwnTables>) {
    session.edit({ path: '/tables', value: { ...session.design!.tables, ...next } }, true)
  }
  function add() {
    const read = parse(metres, 'length', session.units, (m) => m > 0)
    told = 'reason' in read ? read.reason : read.value > 0 ? '' : 'how much of it is there?'
    if ('reason' in read || told !== '') return
    put({ drawer: [...t!.drawer, { size: size || sizes()[0], lengthM: read.value }] })
    metres = ''
  }
  /** What uses a class or a practice goes back to what is advised. */
  function dropPractice(id: string) {
    const banks = session.design!.banks.flatMap((b, i) =>
      b.runs.flatMap((r, n) => (r.practice === id ? [{ path: `/banks/${i}/runs/${n}/practice`, value: null }] : [])),
    )
    session.edit(
      [
        ...banks,
        {
          path: '/tables',
          value: {
            ...t!,
            practices: t!.practices.filter((p) => p.id !== id),
            practice: t!.practice === id ? null : t!.practice,
          },
        },
      ],
      true,
    )
  }
  function dropFuse(id: string) {
    const banks = session.design!.banks.flatMap((b, i) =>
      b.runs.flatMap((r, n) =>
        r.fuse.class === id
          ? [{ path: `/banks/${i}/runs/${n}/fuse`, value: { ...r.fuse, class: null, ratingA: null } }]
          : [],
      ),
    )
    session.edit([...banks, { path: '/tables', value: { ...t!, fuses: t!.fuses.filter((f) => f.id !== id) } }], true)
  }
  const length = (m: number) => say(m, 'm', session.units)
</script>

<Modal name="tables" title="Own tables, and the copper at hand" wide onshow={() => (mode = 'list')}>
  {#if mode === 'take'}
    <TakeTable onleave={() => (mode = 'list')} />
  {:else if t}
    <p class="note mt-1">
      The built-in tables are typical values. What you bring in stands beside them, travels with the design and is named
      on its papers; a maker’s own curve narrows the band of its fuse.
    </p>
    <ul class="own" data-testid="own-tables">
      {#each t.practices as p (p.id)}
        <li>
          <span
            ><b>{p.label}</b>
            <span class="note">amperes of {p.rows.length} sizes, {p.insulationC} °C; {p.source}</span></span
          >
          <span class="acts">
            <button
              type="button"
              class="link-copper min-h-6"
              aria-pressed={t.practice === p.id}
              onclick={() => put({ practice: t.practice === p.id ? null : p.id })}
              >{t.practice === p.id ? 'holds for every run' : 'use it for every run'}</button
            >
            <button
              type="button"
              class="btn btn-ghost btn-xs btn-square"
              aria-label="Take {p.label} out"
              onclick={() => dropPractice(p.id)}><X size={14} /></button
            >
          </span>
        </li>
      {/each}
      {#each t.fuses as f (f.id)}
        <li>
          <span
            ><b>{f.label}</b>
            <span class="note"
              >fuse class, {f.curve.length} points, {say(f.ratingsA[0], 'rating')} to {say(
                f.ratingsA.at(-1)!,
                'rating',
              )}, breaks {say(f.interruptA, 'A')}; {f.source}</span
            ></span
          >
          <span class="acts">
            {#if hand.view}<button
                type="button"
                class="link-copper min-h-6"
                onclick={() =>
                  session.edit(
                    {
                      path: hand.view!.index < 0 ? '~/runs/-' : `~/runs/${hand.view!.index}`,
                      value: {
                        ...hand.view!.doc,
                        fuse: { ...hand.view!.doc.fuse, absent: false, class: f.id, ratingA: null },
                      },
                    },
                    true,
                  )}>use it on {hand.view.name.toLowerCase()}</button
              >{/if}
            <button
              type="button"
              class="btn btn-ghost btn-xs btn-square"
              aria-label="Take {f.label} out"
              onclick={() => dropFuse(f.id)}><X size={14} /></button
            >
          </span>
        </li>
      {/each}
      {#each t.conductors as c (c.size)}
        <li>
          <span
            ><b>{c.size}</b>
            <span class="note">conductor, {num(c.areaMm2, 2)} mm², {num(c.r20MilliohmPerM, 3)} mΩ/m; {c.source}</span
            ></span
          >
        </li>
      {/each}
    </ul>
    <button type="button" class="btn btn-outline btn-sm mt-2" onclick={() => (mode = 'take')}
      >Bring in a table as CSV</button
    >

    <h3 class="font-bold text-[13.5px] mt-4">Copper at hand</h3>
    <ul class="own">
      {#each t.drawer as piece, i (i)}
        <li>
          <span>{sizeName(piece.size, 1)} <span class="fig">{length(piece.lengthM)}</span></span>
          <button
            type="button"
            class="btn btn-ghost btn-xs btn-square"
            aria-label="Take {piece.size} out"
            onclick={() => put({ drawer: t.drawer.filter((_, n) => n !== i) })}><X size={14} /></button
          >
        </li>
      {/each}
    </ul>
    <div class="flex flex-wrap gap-2 items-end mt-1">
      <label class="inline-flex flex-col"
        ><span class="caption">size</span>
        <select class="select select-sm w-32" bind:value={size}
          >{#each sizes() as s (s)}<option value={s}>{s}</option>{/each}</select
        ></label
      >
      <label class="inline-flex flex-col"
        ><span class="caption">{session.units === 'imperial' ? 'feet' : 'metres'}</span>
        <input
          class="input input-sm w-20"
          inputmode="decimal"
          bind:value={metres}
          onkeydown={(e) => e.key === 'Enter' && add()}
        /></label
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={add}>Put it in the drawer</button>
      {#if told}<span class="note" role="alert">{told}</span>{/if}
    </div>
    {#if drawer && t.drawer.length > 0}
      <div class="overflow-x-auto mt-2">
        <table class="table table-xs" data-testid="drawer">
          <thead
            ><tr
              ><th scope="col">run</th><th scope="col">stands</th><th scope="col">needs</th><th scope="col"
                >from the drawer</th
              ></tr
            ></thead
          >
          <tbody>
            {#each drawer.rows as r (r.run)}
              <tr
                ><th scope="row">{r.name}</th><td>{r.size ? sizeName(r.size, r.conductors) : 'none'}</td><td class="fig"
                  >{length(r.needsM)}</td
                ><td
                  >{r.have
                    ? `${sizeName(r.have, r.haveConductors)}${r.laid ? ', as it stands' : ''}`
                    : 'nothing that fits and is long enough'}</td
                ></tr
              >
            {/each}
          </tbody>
        </table>
      </div>
      <p class="note mt-1" data-testid="buy">
        {#if drawer.sizes.some((s) => s.buyM > 0.005)}To be bought: {drawer.sizes
            .filter((s) => s.buyM > 0.005)
            .map((s) => `${length(s.buyM)} of ${s.size}`)
            .join(', ')}.{:else}Nothing has to be bought.{/if}
      </p>
      {#if drawer.changes.length > 0}<button
          type="button"
          class="btn btn-primary btn-sm mt-1"
          onclick={() =>
            session.edit(
              drawer!.changes.map((c) => ({ path: c.path, value: c.value })),
              true,
            )}>Lay what is at hand</button
        >{/if}
    {/if}
    <p class="caution">
      Copper from a drawer is worth what its print says: size, insulation and age are looked at before it is laid.
    </p>
  {/if}
</Modal>

<style>
  .own li {
    display: flex;
    flex-wrap: wrap;
    justify-content: space-between;
    gap: 2px 12px;
    padding: 4px 0;
    border-bottom: 1px solid var(--grid);
    font-size: 13px;
  }
  .acts {
    display: inline-flex;
    gap: 10px;
    align-items: center;
    font-size: 12.5px;
  }
  .table th,
  .table td {
    font-size: 12.5px;
    padding: 3px 8px;
  }
  @media (max-width: 939px) {
    button {
      min-height: 44px;
      min-width: 44px;
    }
  }
</style>
