<script lang="ts">
  import InverterList from './InverterList.svelte'
</script>

<InverterList />
