<script lang="ts">
  import WhatIfs from './WhatIfs.svelte'
</script>

<WhatIfs />
