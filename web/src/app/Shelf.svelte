<script lang="ts">
  import { onDestroy, onMount } from 'svelte'
  import { api, Refused } from '../api/client'
  import type { DesignCard } from '../api/client'
  import Badger from './Badger.svelte'
  import { route } from './route.svelte'
  import { session } from './session.svelte'
  import { openDemo } from './demo'
  import ShelfCard from './ShelfCard.svelte'

  let cards = $state.raw<DesignCard[] | null>(null)
  const AWAY = 'The server does not answer.'
  let trouble = $state<string | null>(null)
  let search = $state('')
  let sort = $state<'newest' | 'name' | 'energy' | 'voltage'>('newest')
  let bin = $state(false)
  let gone = $state.raw<DesignCard | null>(null)
  let faults = $state.raw<{ file: string; places: { pointer: string; reason: string }[] } | null>(null)
  let over = $state(false)
  let picker: HTMLInputElement

  /** Cards on the screen; more come as one scrolls, so that hundreds of designs stay quick. */
  const STEP = 36
  let most = $state(STEP)
  function more(node: HTMLElement) {
    const watch = new IntersectionObserver((seen) => {
      if (seen.some((s) => s.isIntersecting)) most += STEP
    })
    watch.observe(node)
    return { destroy: () => watch.disconnect() }
  }

  const orders: Record<typeof sort, (a: DesignCard, b: DesignCard) => number> = {
    newest: (a, b) => b.updatedUtc.localeCompare(a.updatedUtc),
    name: (a, b) => a.name.localeCompare(b.name),
    energy: (a, b) => (b.usableWh ?? 0) - (a.usableWh ?? 0),
    voltage: (a, b) => (a.systemV ?? 99) - (b.systemV ?? 99) || a.name.localeCompare(b.name),
  }
  const shown = $derived(
    (cards ?? [])
      .filter((c) =>
        search
          .toLowerCase()
          .split(/\s+/)
          .every((word) => `${c.name} ${c.systemV ?? ''} V ${c.arrangement}`.toLowerCase().includes(word)),
      )
      .sort(orders[sort]),
  )

  onMount(async () => {
    if (session.id) await session.close()
    await load()
  })

  /** What is still being worked out fills in. */
  let filling: ReturnType<typeof setTimeout> | undefined
  async function load() {
    clearTimeout(filling)
    await attempt(async () => {
      cards = await api.designs(bin)
      if (cards.some((c) => !c.ready)) filling = setTimeout(() => void load(), 700)
    })
    // A server that is away or slow is asked again: whoever waits for it need not press anything.
    if (trouble === AWAY) filling = setTimeout(() => void load(), 2000)
  }
  onDestroy(() => clearTimeout(filling))

  const save = (path: string) => attempt(() => api.save(path))

  async function attempt(act: () => Promise<void>) {
    try {
      await act()
      trouble = null
    } catch (e) {
      if (e instanceof Refused && e.status === 401) route.toKey()
      else trouble = e instanceof Refused ? e.message : AWAY
    }
  }

  const demo = () => attempt(() => openDemo(cards ?? []))

  const copy = (card: DesignCard) =>
    attempt(async () => {
      await api.copy(card.id)
      await load()
    })

  const remove = (card: DesignCard) =>
    attempt(async () => {
      await api.remove(card.id)
      gone = card
      await load()
    })

  const restore = (card: DesignCard) =>
    attempt(async () => {
      await api.restore(card.id)
      gone = null
      await load()
    })

  const rename = (card: DesignCard, name: string) =>
    attempt(async () => {
      const answer = await api.design(card.id)
      await api.replace(card.id, answer.revision, { ...answer.design, name })
      await load()
    })

  /** Files one after the other; one that does not fit changes nothing and says why. */
  async function bringIn(files: Iterable<File>) {
    faults = null
    for (const file of files) {
      try {
        await api.bringIn(file, /\.zip$/i.test(file.name))
      } catch (e) {
        faults = {
          file: file.name,
          places:
            e instanceof Refused
              ? e.faults.length
                ? e.faults
                : [{ pointer: '', reason: e.message }]
              : [{ pointer: '', reason: 'could not be sent: the server does not answer' }],
        }
        break
      }
    }
    await load()
  }

  function dropped(e: DragEvent) {
    e.preventDefault()
    over = false
    if (e.dataTransfer?.files.length) void bringIn(e.dataTransfer.files)
  }
</script>

<main
  class={['shelf', over && 'over']}
  ondragover={(e) => {
    e.preventDefault()
    over = true
  }}
  ondragleave={() => (over = false)}
  ondrop={dropped}
>
  <header class="flex flex-wrap items-center gap-x-3 gap-y-2 mb-3">
    <Badger size={26} />
    <h1 class="headline">Inky Badger <span class="font-normal text-(--ink-2)">{bin ? 'bin' : 'designs'}</span></h1>
    <span class="ml-auto flex flex-wrap gap-2">
      <a href="#/new" class="btn btn-primary btn-sm">New design</a>
      <button type="button" class="btn btn-outline btn-sm" onclick={demo}>Open the demo</button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => picker.click()}>Bring in files</button>
      <button type="button" class="btn btn-outline btn-sm" onclick={() => save('/api/designs.zip')}>All as a zip</button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => save('/api/backup')}>Back up</button>
    </span>
    <input
      bind:this={picker}
      type="file"
      multiple
      accept=".json,.zip"
      class="hidden"
      aria-label="Design files"
      onchange={(e) => {
        const files = [...(e.currentTarget.files ?? [])]
        // The same file may be chosen again.
        e.currentTarget.value = ''
        void bringIn(files)
      }}
    />
  </header>
  <div class="flex flex-wrap items-end gap-3 mb-4">
    <div class="flex flex-col gap-px">
      <label for="shelf-search" class="caption">search</label>
      <input
        id="shelf-search"
        class="input input-xs h-[26px] w-[220px]"
        type="search"
        bind:value={search}
        placeholder="name, 24 V, 2S4P"
      />
    </div>
    <div class="flex flex-col gap-px">
      <label for="shelf-sort" class="caption">order</label>
      <select id="shelf-sort" class="select select-xs h-[26px] w-[150px]" bind:value={sort}>
        <option value="newest">newest first</option>
        <option value="name">by name</option>
        <option value="energy">most usable kWh</option>
        <option value="voltage">by voltage</option>
      </select>
    </div>
    <button
      type="button"
      class="link-copper min-h-6"
      onclick={() => {
        bin = !bin
        gone = null
        void load()
      }}>{bin ? 'to the shelf' : 'the bin'}</button
    >
    <span class="caption" role="status">{cards ? `${shown.length} of ${cards.length}` : ''}</span>
  </div>
  {#if trouble}<p role="alert" class="mb-3">{trouble}</p>{/if}
  {#if faults}
    <section role="alert" class="told" data-testid="import-faults">
      <b>{faults.file} was not taken in; nothing was changed.</b>
      <ul>
        {#each faults.places.slice(0, 8) as place (place.pointer + place.reason)}
          <li><code>{place.pointer || 'the file'}</code> {place.reason}</li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if gone}
    <p class="told" role="status">
      {gone.name} is in the bin, which keeps it for 30 days of use.
      <button type="button" class="link-copper" onclick={() => restore(gone!)}>Undo</button>
    </p>
  {/if}
  {#if cards}
    <ul class="cards">
      {#each shown.slice(0, most) as card (card.id)}
        <li>
          <ShelfCard
            {card}
            {bin}
            oncopy={() => copy(card)}
            onremove={() => remove(card)}
            onrestore={() => restore(card)}
            onrename={(name) => rename(card, name)}
          />
        </li>
      {:else}
        <li class="note">
          {cards.length > 0
            ? 'No design fits the search.'
            : bin
              ? 'The bin is empty.'
              : 'No design yet. Begin with a new one, or drop a design file here.'}
        </li>
      {/each}
    </ul>
    {#if shown.length > most}
      {#key most}<p class="caption mt-3" use:more>{shown.length - most} more</p>{/key}
    {/if}
  {/if}
</main>

<style>
  .shelf {
    max-width: 1120px;
    margin: 0 auto;
    padding: 20px 24px;
    min-height: 100dvh;
  }
  .over {
    outline: 2px dashed var(--ink);
    outline-offset: -8px;
  }
  .cards {
    display: grid;
    gap: 12px;
    grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  }
  .told {
    border: 1px solid var(--ink);
    background: var(--sheet);
    padding: 8px 12px;
    margin-bottom: 12px;
  }
</style>
