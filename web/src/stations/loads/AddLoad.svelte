<script lang="ts">
  import X from '@lucide/svelte/icons/x'
  import type { LibraryLoad, Load } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { library } from './library.svelte'
  import { fromLibrary, newLoad, summary } from './loads'

  /** Searches the library as one types; what is not in it becomes a load of its own. */
  let { onadd }: { onadd: (load: Load) => void } = $props()
  const id = $props.id()
  const MOST = 40
  let text = $state('')
  let open = $state(false)
  let at = $state(0)
  let list = $state<HTMLElement>()
  let field: HTMLInputElement
  /** Where the list stands on the page: the rows' own scrolling must not cut it. */
  let place = $state({ left: 0, top: 0, tall: 320 })

  const found = $derived(open ? library.find(text).slice(0, MOST) : [])
  const own = $derived(new Set(library.own.map((l) => l.key)))

  $effect(() => {
    void library.fetch()
  })
  $effect(() => {
    list?.children[at]?.scrollIntoView({ block: 'nearest' })
  })

  function show() {
    const box = field.getBoundingClientRect()
    const left = Math.max(8, Math.min(box.left, innerWidth - Math.min(430, innerWidth * 0.88) - 8))
    place = { left, top: box.bottom + 2, tall: Math.max(140, Math.min(320, innerHeight - box.bottom - 12)) }
    open = true
  }

  function take(load: Load) {
    open = false
    text = ''
    onadd(load)
  }

  const pick = (item: LibraryLoad) => take(fromLibrary(item, session.result?.voltage ?? null))

  function key(e: KeyboardEvent) {
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      e.preventDefault()
      if (!open) show()
      at = Math.max(0, Math.min(found.length, at + (e.key === 'ArrowDown' ? 1 : -1)))
    } else if (e.key === 'Enter') {
      e.preventDefault()
      // The last entry is always the load of one's own.
      if (open && found[at]) pick(found[at])
      else take(newLoad(text.trim()))
    } else if (e.key === 'Escape' && open) {
      e.stopPropagation()
      open = false
    }
  }
</script>

<svelte:window onscroll={() => (open = false)} />

<div class="adder">
  <input
    {id}
    class="input input-xs"
    role="combobox"
    aria-label="Add a load from the library"
    aria-expanded={open}
    aria-controls="{id}-list"
    aria-autocomplete="list"
    aria-activedescendant={open ? `${id}-${at}` : undefined}
    placeholder="from the library"
    autocomplete="off"
    spellcheck="false"
    bind:this={field}
    bind:value={text}
    onfocus={show}
    oninput={() => {
      if (!open) show()
      at = 0
    }}
    onblur={() => (open = false)}
    onkeydown={key}
  />
  {#if open}
    <!-- A press must not take the focus away before it is a click. -->
    <div
      class="matches"
      style:left="{place.left}px"
      style:top="{place.top}px"
      style:max-height="{place.tall}px"
      role="listbox"
      tabindex="-1"
      id="{id}-list"
      aria-label="Loads of the library"
      bind:this={list}
      onmousedown={(e) => e.preventDefault()}
    >
      {#each found as item, i (item.key)}
        <div
          id="{id}-{i}"
          role="option"
          tabindex="-1"
          aria-selected={i === at}
          class={['item', i === at && 'at']}
          data-library={item.key}
          onclick={() => pick(item)}
          onkeydown={() => {}}
        >
          <span class="name">{item.load.name}</span>
          <span class="caption">{summary(item.load)}</span>
          {#if own.has(item.key)}
            <button
              type="button"
              class="drop"
              tabindex="-1"
              aria-label="Take {item.load.name} out of my library"
              onclick={(e) => {
                e.stopPropagation()
                void library.drop(item.key)
              }}><X size={13} /></button
            >
          {/if}
        </div>
      {/each}
      <div
        id="{id}-{found.length}"
        role="option"
        tabindex="-1"
        aria-selected={at >= found.length}
        class={['item', at >= found.length && 'at']}
        data-library="none"
        onclick={() => take(newLoad(text.trim()))}
        onkeydown={() => {}}
      >
        <span class="name">{text.trim() ? `“${text.trim()}”, a load of my own` : 'A load of my own'}</span>
      </div>
      <p class="caption foot">{library.failure ?? 'Typical values: the plate, or a meter, comes first.'}</p>
    </div>
  {/if}
</div>

<style>
  .adder {
    position: relative;
  }
  .input {
    width: 122px;
    height: 26px;
  }
  .matches {
    position: fixed;
    z-index: 20;
    color: var(--ink);
    width: min(430px, 88vw);
    overflow-y: auto;
    background: var(--sheet);
    border: 1px solid var(--ink);
  }
  .item {
    display: flex;
    align-items: baseline;
    gap: 8px;
    width: 100%;
    min-height: 26px;
    padding: 3px 8px;
    cursor: pointer;
  }
  .item .caption {
    flex: 1;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  .item:hover {
    background: var(--page);
  }
  .item.at {
    background: var(--tint);
    box-shadow: inset 2px 0 var(--copper);
  }
  .name {
    font-weight: 600;
    white-space: nowrap;
  }
  .at .caption {
    color: var(--ink-2);
  }
  .drop {
    align-self: center;
    min-width: 24px;
    min-height: 24px;
    cursor: pointer;
  }
  .foot {
    position: sticky;
    bottom: 0;
    padding: 4px 8px;
    background: var(--sheet);
    border-top: 1px solid var(--hair);
  }
  @media (max-width: 939px) {
    .input {
      height: 44px;
      width: 200px;
      font-size: 16px;
    }
    .item {
      min-height: 44px;
      flex-wrap: wrap;
      gap: 0 8px;
    }
  }
</style>
