<script lang="ts">
  import X from '@lucide/svelte/icons/trash-2'
  import { api } from '../../api/client'
  import type { UnitCsvAnswer, UnitItem, UnitTrial } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { known, num, sayVolts } from '../../ui/quantity'
  import OwnUnit from './OwnUnit.svelte'

  /** The stock of units: searched as one types, own ones added and brought in as CSV; each says whether it makes the voltage. */
  let { open = $bindable(false), onpick }: { open: boolean; onpick: (unit: UnitItem) => void } = $props()
  let dialog: HTMLDialogElement
  let trials = $state.raw<UnitTrial[]>([])
  let text = $state('')
  let told = $state('')
  let mode = $state<'list' | 'own' | 'csv'>('list')
  let csv = $state('')
  let answer = $state.raw<UnitCsvAnswer | null>(null)
  let mended = $state<string[]>([])
  let draft = $state.raw<UnitItem | null>(null)

  $effect(() => {
    if (!open) {
      dialog.close()
      return
    }
    dialog.showModal()
    mode = 'list'
    told = text = csv = ''
    answer = null
    void fetchAll()
  })

  async function fetchAll() {
    try {
      trials = await api.units(session.worked!, session.bankIndex)
    } catch (e) {
      told = e instanceof Error ? e.message : 'The stock does not answer.'
    }
  }

  const found = $derived.by(() => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean)
    return trials.filter((t) => {
      const all =
        `${t.item.name} ${t.item.chemistry} ${t.item.productLine ?? ''} ${t.item.ah} ah ${sayVolts(t.nominalV)}`.toLowerCase()
      return words.every((w) => all.includes(w))
    })
  })

  function pick(item: UnitItem) {
    onpick(item)
    open = false
  }

  /** The units as they are kept: with a key of their own, by which a design tells them from others. */
  async function keep(units: UnitItem[]): Promise<UnitItem[]> {
    const kept = units.map((unit, n) => ({ ...unit, key: `own-${Date.now().toString(36)}${n}` }))
    for (const unit of kept) await api.keepUnit(unit.key, unit)
    await fetchAll()
    return kept
  }

  async function read(csvText: string) {
    told = ''
    try {
      const got = await api.readUnits(csvText)
      if (got.units.length > 0) {
        const n = (await keep(got.units)).length
        told = `${n} ${n === 1 ? 'unit' : 'units'} taken into the stock`
      }
      answer = got.bad.length > 0 ? got : null
      mended = got.bad.map((b) => b.text)
      if (!answer) {
        csv = ''
        mode = 'list'
      }
    } catch (e) {
      told = e instanceof Error ? e.message : 'It could not be read.'
    }
  }

  async function file(list: FileList | null) {
    if (list?.[0]) await read(await list[0].text())
  }

  async function drop(key: string) {
    await api.dropUnit(key)
    await fetchAll()
  }
</script>

<dialog bind:this={dialog} class="modal" onclose={() => (open = false)} aria-labelledby="stock-title">
  <div class="modal-box border border-(--ink) max-w-3xl">
    <h2 id="stock-title" class="headline">
      {mode === 'own' ? 'A unit of my own' : mode === 'csv' ? 'Units as CSV' : 'The stock of units'}
    </h2>
    {#if mode === 'own'}
      <OwnUnit
        start={draft}
        onleave={() => (mode = 'list')}
        onkeep={async (unit) => {
          const [kept] = await keep([unit])
          pick(kept)
        }}
      />
    {:else if mode === 'csv'}
      {#if answer}
        <p class="note mt-1">{answer.head}</p>
        {#each answer.bad as bad, i (bad.line + bad.text)}
          <label class="block mt-1.5" data-testid="unit-bad"
            ><span class="font-semibold text-[12.5px]">line {bad.line}: {bad.reason}</span>
            <input class="input input-xs w-full" spellcheck="false" bind:value={mended[i]} /></label
          >
        {/each}
      {:else}
        <label class="block mt-2"
          ><span class="caption">Paste it here: name, chemistry, cells, ah, and what else is known</span>
          <textarea
            class="textarea w-full"
            rows="7"
            spellcheck="false"
            placeholder={'name,chemistry,cells,ah,bms amps,mass kg,price\nDepot block 12 V 120 Ah,lfp,4,120,120,13.4,330'}
            bind:value={csv}></textarea></label
        >
      {/if}
      <p class="note mt-2" role="status">{told}</p>
      <div class="modal-action flex-wrap">
        <a class="btn btn-outline btn-sm mr-auto" href="/api/units.csv" download>Save the stock</a>
        {#if answer}
          <button
            type="button"
            class="btn btn-primary btn-sm"
            onclick={() => read([answer!.head, ...mended].join('\n'))}>Read the mended lines</button
          >
        {:else}
          <label class="btn btn-outline btn-sm"
            >Open a file<input
              type="file"
              accept=".csv,.txt,text/csv"
              class="sr-only"
              onchange={(e) => void file(e.currentTarget.files)}
            /></label
          >
          <button type="button" class="btn btn-primary btn-sm" disabled={!csv.trim()} onclick={() => read(csv)}
            >Read it</button
          >
        {/if}
        <button type="button" class="btn btn-outline btn-sm" onclick={() => (mode = 'list')}>Back to the stock</button>
      </div>
    {:else}
      <div class="flex flex-wrap gap-2 mt-2 items-center">
        <input
          class="input input-xs w-64"
          aria-label="Search the stock"
          placeholder="lfp 100, 24 V, flooded …"
          autocomplete="off"
          data-testid="stock-search"
          bind:value={text}
        />
        <span class="note" role="status">{told}</span>
      </div>
      <div class="stock">
        {#each found as t (t.item.key + t.item.name)}
          <div class="unit" data-stock={t.item.key}>
            <button type="button" class="link-copper text-left" onclick={() => pick(t.item)}>{t.item.name}</button>
            <span class="caption"
              >{sayVolts(t.nominalV)}, {num(t.item.ah)} Ah, {known(t.item.massKg, (kg) => `${num(kg, 1)} kg`)}{t.item
                .bms
                ? `, BMS ${num(t.item.bms.continuousA)} A`
                : ''}, {known(t.item.price, num)}</span
            >
            <span class={['words', t.series === null && 'not']}>{t.words}</span>
            <span class="own">
              <button
                type="button"
                class="btn btn-ghost btn-xs"
                aria-label="as a start for a unit of my own: {t.item.name}"
                onclick={() => {
                  draft = t.item
                  mode = 'own'
                }}>as a start</button
              >
              {#if t.item.key.startsWith('own-')}
                <button
                  type="button"
                  class="btn btn-ghost btn-xs btn-square"
                  aria-label="Take {t.item.name} out of my stock"
                  onclick={() => drop(t.item.key)}><X size={13} /></button
                >
              {/if}
            </span>
          </div>
        {:else}
          <p class="note my-2">Nothing of that in the stock: add it as your own.</p>
        {/each}
      </div>
      <p class="caption mt-2">
        Generic units with typical figures and invented prices: the data sheet in hand comes first.
      </p>
      <div class="modal-action flex-wrap">
        <button type="button" class="btn btn-outline btn-sm" onclick={() => (mode = 'csv')}>CSV</button>
        <button
          type="button"
          class="btn btn-outline btn-sm"
          onclick={() => {
            draft = null
            mode = 'own'
          }}>Add my own</button
        >
        <button type="button" class="btn btn-primary btn-sm" onclick={() => (open = false)}>Close</button>
      </div>
    {/if}
  </div>
</dialog>

<style>
  .stock {
    margin-top: 8px;
    max-height: 46vh;
    overflow-y: auto;
    border-top: 1px solid var(--hair);
  }
  .unit {
    display: grid;
    grid-template-columns: minmax(0, 1.1fr) minmax(0, 1.4fr) minmax(0, 1fr) max-content;
    gap: 8px;
    align-items: center;
    min-height: 28px;
    border-bottom: 1px solid var(--grid);
  }
  .unit button {
    min-height: 26px;
    font-size: 13px;
  }
  .words {
    font-size: 12px;
  }
  .words.not {
    color: var(--ink-3);
  }
  .own {
    display: inline-flex;
  }
  textarea {
    font-size: 13px;
    border-color: var(--ink-3);
  }
  @media (max-width: 939px) {
    .unit {
      grid-template-columns: minmax(0, 1fr) max-content;
      padding: 4px 0;
    }
    .unit button {
      min-height: 44px;
    }
  }
</style>
