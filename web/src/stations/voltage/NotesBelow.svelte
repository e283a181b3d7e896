<script lang="ts">
  import Schools from './Schools.svelte'
</script>

<Schools />
