<script lang="ts">
  import Steps from './Steps.svelte'
</script>

<Steps />
