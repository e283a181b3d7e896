<script lang="ts">
  import Circuits from './Circuits.svelte'
  import Chain from './Chain.svelte'
</script>

<Circuits />
<Chain />
