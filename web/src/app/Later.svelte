<script lang="ts">
  import type { Component } from 'svelte'

  /** A place that is fetched when it is first gone to. */
  let { load }: { load: () => Promise<{ default: Component }> } = $props()
</script>

{#await load()}
  <main class="p-8 caption" aria-busy="true">One moment…</main>
{:then { default: Place }}
  <Place />
{:catch}
  <main class="p-8">
    <h1 class="headline">The server does not answer.</h1>
    <p class="mt-3"><button type="button" class="link-copper" onclick={() => location.reload()}>Try again</button></p>
  </main>
{/await}
