<script lang="ts">
  import Fig from './Fig.svelte'

  /** A row of figures, the first one foremost. Each opens its working. */
  interface Item {
    ptr: string
    unit: string
    label: string
    /** A word or two beneath. */
    note?: string
    testid?: string
  }
  let { items, lead = 26, rest = 19 }: { items: Item[]; lead?: number; rest?: number } = $props()
</script>

<dl class="figures">
  {#each items as item, i (item.ptr)}
    <div>
      <dt class="caption">{item.label}</dt>
      <dd data-testid={item.testid}>
        <Fig ptr={item.ptr} unit={item.unit} label={item.label} size={i === 0 ? lead : rest} />
        {#if item.note}<span class="caption">{item.note}</span>{/if}
      </dd>
    </div>
  {/each}
</dl>

<style>
  .figures {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 22px;
    align-items: flex-end;
  }
  .figures > div {
    display: flex;
    flex-direction: column;
  }
  dd {
    display: flex;
    align-items: baseline;
    gap: 6px;
    min-height: 28px;
  }
</style>
