<script lang="ts">
  import Circuits from './Circuits.svelte'
  import Chain from './Chain.svelte'
  import { hand } from './hand.svelte'
  import ProtectionFoot from './ProtectionFoot.svelte'
</script>

{#if hand.look === 'protection'}
  <ProtectionFoot />
{:else if hand.look === 'elevation'}
  <Circuits />
  <Chain />
{/if}
