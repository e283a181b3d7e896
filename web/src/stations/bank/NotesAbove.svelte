<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { bench } from './bench.svelte'
  import ConductorStrip from './ConductorStrip.svelte'
  import DropOuts from './DropOuts.svelte'
  import Takeoffs from './Takeoffs.svelte'
</script>

{#if bench.conductor !== null && session.result?.network?.conductors[bench.conductor]}
  <ConductorStrip c={session.result.network.conductors[bench.conductor]} index={bench.conductor} />
{/if}
<Takeoffs />
<DropOuts />
