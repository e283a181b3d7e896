<script lang="ts">
  import { untrack } from 'svelte'
  import { api, Refused } from '../api/client'
  import Badger from './Badger.svelte'
  import { keeper } from './keeper.svelte'
  import { route } from './route.svelte'
  import { session } from './session.svelte'

  /** Lets a device of the network in: the key that was printed, from the link or typed, exchanged for a cookie. */
  let key = $state('')
  let trouble = $state<string | null>(null)

  async function give(e?: SubmitEvent) {
    e?.preventDefault()
    try {
      await api.giveKey(key)
      route.fromKey()
      // What waited while this device was not known goes on its way.
      if (session.id) {
        void keeper.pump()
        void session.evaluate()
      }
    } catch (problem) {
      trouble = problem instanceof Refused ? problem.message : 'The server does not answer.'
    }
  }
  $effect(() => {
    if (!route.key) return
    key = route.key
    untrack(() => void give())
  })
</script>

<main class="p-8 max-w-md">
  <header class="flex items-center gap-3 mb-4">
    <Badger size={26} />
    <h1 class="headline">Inky Badger</h1>
  </header>
  <form onsubmit={give} class="flex flex-col gap-2">
    {#if session.id}<p class="note" data-testid="waits">
        What you typed waits on this device: {keeper.waiting}
        {keeper.waiting === 1 ? 'edit' : 'edits'}.
      </p>{/if}
    <label for="device-key" class="caption">The key that Inky Badger printed when it started</label>
    <input
      id="device-key"
      class="input fig"
      bind:value={key}
      autocomplete="off"
      autocapitalize="characters"
      spellcheck="false"
    />
    <button class="btn btn-primary">Let this device in</button>
    {#if trouble}<p role="alert">{trouble}</p>{/if}
  </form>
</main>
