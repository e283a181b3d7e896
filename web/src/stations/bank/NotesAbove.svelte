<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { bench } from './bench.svelte'
  import ConductorStrip from './ConductorStrip.svelte'
  import DropOuts from './DropOuts.svelte'
  import Takeoffs from './Takeoffs.svelte'
</script>

{#if bench.conductor !== null && session.result?.network?.copper.placed[bench.conductor]}
  <ConductorStrip c={session.result.network.copper.placed[bench.conductor]} index={bench.conductor} />
{/if}
{#if bench.view === 'currents'}
  <Takeoffs />
  <DropOuts />
{/if}
