<script lang="ts">
  import Fig from './Fig.svelte'

  /** The figures of a drawing as a table, for those who cannot see it or would rather read. */
  interface Row {
    label: string
    cells: { ptr: string; unit: string; label: string }[]
  }
  let { heads, rows }: { heads: string[]; rows: Row[] } = $props()
</script>

<details class="as-table">
  <summary class="link-copper text-[12px]">as a table</summary>
  <table class="table table-xs">
    <thead>
      <tr>
        {#each heads as head (head)}<th scope="col">{head}</th>{/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.label)}
        <tr>
          <th scope="row">{row.label}</th>
          {#each row.cells as cell (cell.ptr)}<td><Fig {...cell} size={14} /></td>{/each}
        </tr>
      {/each}
    </tbody>
  </table>
</details>

<style>
  .as-table {
    margin-top: 4px;
  }
  summary {
    width: max-content;
    min-height: 24px;
  }
  table {
    width: auto;
    font-size: 12.5px;
  }
  th {
    color: var(--ink-2);
  }
</style>
