<script lang="ts">
  import { session } from '../../app/session.svelte'

  /** The order of the work, as long as one stands at its beginning. */
  const loads = $derived(session.bank!.demand.loads)
  const beginning = $derived(session.bank!.demand.by === 'loads' && loads.every((l) => l.assumed))
</script>

{#if beginning}
  <p class="order">
    <b>The work goes along the path from right to left.</b> What runs is said here; 2 Voltage, 3 Inverter, 4 Bank and 5 Cables
    &amp; fuses follow from it and are advised. Look at each, pin what you choose yourself.
  </p>
{/if}

<style>
  .order {
    padding-bottom: 10px;
    margin-bottom: 10px;
    border-bottom: 1px solid var(--hair);
  }
</style>
