<script lang="ts">
  import { onMount } from 'svelte'
  import { api, Refused } from '../api/client'
  import Badger from './Badger.svelte'
  import { openDemo } from './demo'
  import { route } from './route.svelte'
  import { session } from './session.svelte'

  /** A new design asks one thing: what it is for. */
  let starts = $state.raw<Awaited<ReturnType<typeof api.starts>> | null>(null)
  let trouble = $state('')

  async function attempt(act: () => Promise<void>) {
    try {
      await act()
      trouble = ''
    } catch (e) {
      if (e instanceof Refused && e.status === 401) route.toKey()
      else trouble = e instanceof Refused ? e.message : 'The server does not answer.'
    }
  }

  onMount(() =>
    attempt(async () => {
      if (session.id) await session.close()
      starts = await api.starts()
    }),
  )

  const begin = (key?: string) => attempt(async () => route.toStation((await api.begin(key)).id, 'loads'))
</script>

<svelte:head><title>New design</title></svelte:head>
<main class="new">
  <header>
    <Badger size={26} />
    <h1 class="headline">What is it for?</h1>
    <span class="links">
      <a class="link-copper" href="#/shelf">Designs</a>
      <button type="button" class="link-copper" onclick={() => attempt(async () => openDemo(await api.designs()))}
        >Open the demo instead</button
      >
    </span>
  </header>
  <p class="note">
    Each of these is filled with typical figures, marked as assumed, so that every station has something to say at once.
    Places and people are made up; everything can be changed.
  </p>
  {#if trouble}<p role="alert" class="mt-2">{trouble}</p>{/if}
  <ul>
    <li>
      <button type="button" class="start blank" data-start="blank" onclick={() => begin()}>
        <b>A blank sheet</b><span>Nothing is assumed: the first load is yours.</span>
      </button>
    </li>
    {#each starts ?? [] as s (s.key)}
      <li>
        <button type="button" class="start" data-start={s.key} onclick={() => begin(s.key)}>
          <b>{s.title}</b><span>{s.words}</span>
        </button>
      </li>
    {/each}
  </ul>
</main>

<style>
  .new {
    max-width: 1120px;
    margin: 0 auto;
    padding: 20px 24px;
  }
  header {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 12px;
    margin-bottom: 6px;
  }
  .links {
    margin-left: auto;
    display: flex;
    gap: 18px;
  }
  ul {
    display: grid;
    gap: 10px;
    grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
    margin-top: 14px;
  }
  li {
    display: flex;
  }
  .start {
    flex: 1;
    display: flex;
    flex-direction: column;
    gap: 3px;
    text-align: left;
    padding: 10px 12px 12px;
    background: var(--sheet);
    border: 1px solid var(--ink-3);
    border-left: 5px solid var(--copper);
    cursor: pointer;
  }
  .start b {
    font-size: 15px;
  }
  .start span {
    color: var(--ink-2);
  }
  .start:hover,
  .start:focus-visible {
    background: var(--tint);
    border-color: var(--ink);
    border-left-color: var(--copper);
  }
  .blank {
    border-style: dashed;
    border-left: 5px double var(--ink-3);
  }
</style>
