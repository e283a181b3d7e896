<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Changeover from './Changeover.svelte'
  import Opening from './Opening.svelte'
  import SettingsCard from './SettingsCard.svelte'
</script>

{#if session.result?.charging}
  <SettingsCard />
  <Opening />
  <Changeover />
{/if}
