<script lang="ts">
  import { onMount } from 'svelte'
  import { api } from '../api/client'
  import type { DesignCard } from '../api/client'
  import Mark from '../ui/Mark.svelte'
  import { say } from '../ui/quantity'
  import Badger from './Badger.svelte'
  import { route } from './route.svelte'
  import { session } from './session.svelte'

  let cards = $state.raw<DesignCard[] | null>(null)
  let trouble = $state(false)
  onMount(async () => {
    try {
      if (session.id) await session.close()
      cards = await api.designs()
    } catch {
      trouble = true
    }
  })

  async function add() {
    const answer = await api.add()
    route.toStation(answer.id, 'loads')
  }
</script>

<main class="max-w-[1100px] mx-auto p-6">
  <header class="flex items-center gap-3 mb-5">
    <Badger size={26} />
    <h1 class="headline">Inky Badger <span class="font-normal text-(--ink-2)">designs</span></h1>
    <button type="button" class="btn btn-primary btn-sm ml-auto" onclick={add}>New, empty</button>
  </header>
  {#if trouble}
    <p role="alert">The server does not answer.</p>
  {:else if cards}
    <ul class="cards">
      {#each cards as card (card.id)}
        <li>
          <a class="card-link" href="#/d/{card.id}/bank">
            <span class="font-bold text-[14px] truncate">{card.name}</span>
            <span class="flex items-baseline gap-4">
              {#if card.systemV}<span class="fig text-[24px]">{card.systemV}<small> V</small></span>{/if}
              {#if card.usableWh}<span class="fig text-[24px]">{say(card.usableWh, 'Wh')}</span>{/if}
              <span class="fig text-[16px]">{card.arrangement}</span>
            </span>
            <span class="note flex items-center gap-1.5">
              {#if card.firstToDo}
                {card.firstToDo}
              {:else if card.wrong}
                <Mark kind="wrong" /> {card.wrong} wrong, {card.toLookAt} to look at
              {:else if card.toLookAt}
                <Mark kind="look" /> {card.toLookAt} to look at
              {:else}
                fits <Mark kind="fits" size={8} />
              {/if}
              <span class="ml-auto caption"
                >{new Date(card.updatedUtc).toLocaleDateString('en-GB', {
                  day: 'numeric',
                  month: 'short',
                  year: 'numeric',
                })}</span
              >
            </span>
          </a>
        </li>
      {:else}
        <li class="note">No design yet. Begin with a new, empty one.</li>
      {/each}
    </ul>
  {/if}
</main>

<style>
  .cards {
    display: grid;
    gap: 12px;
    grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
  }
  .card-link {
    display: flex;
    flex-direction: column;
    gap: 6px;
    padding: 12px 14px;
    background: var(--sheet);
    border: 1px solid var(--ink-3);
  }
  .card-link:hover {
    border-color: var(--ink);
    outline: 1px solid var(--ink);
  }
</style>
