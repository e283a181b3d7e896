<script lang="ts">
  import { bench } from './bench.svelte'
  import Steps from './Steps.svelte'
</script>

{#if bench.view === 'currents'}<Steps />{/if}
