<script lang="ts">
  import Fig from './Fig.svelte'

  /** The figures of a drawing as a table, for those who cannot see it or would rather read. */
  interface Row {
    label: string
    cells: { ptr: string; unit: string; label: string }[]
  }
  interface Props {
    heads: string[]
    rows: Row[]
    /** Rows of words, where the figures open their workings elsewhere. */
    plain?: string[][]
  }
  let { heads, rows, plain = [] }: Props = $props()
</script>

<details class="as-table">
  <summary class="link-copper text-[12px]">as a table</summary>
  <table class="table table-xs">
    <thead>
      <tr>
        {#each heads as head, h (h)}<th scope="col">{head}</th>{/each}
      </tr>
    </thead>
    <tbody>
      {#each rows as row (row.label)}
        <tr>
          <th scope="row">{row.label}</th>
          {#each row.cells as cell (cell.ptr)}<td><Fig {...cell} size={14} /></td>{/each}
        </tr>
      {/each}
      {#each plain as row, n (n)}
        <tr>
          <th scope="row">{row[0]}</th>
          {#each row.slice(1) as cell, i (i)}<td class="fig">{cell}</td>{/each}
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
  table :is(td, th) {
    font-size: 12.5px;
  }
  th {
    color: var(--ink-2);
  }
</style>
