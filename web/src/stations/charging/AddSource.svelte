<script lang="ts">
  import { session } from '../../app/session.svelte'
  import { bench } from './bench.svelte'
  import { kinds, newSource } from './sources'

  /** One press a kind: the source is there, and its fields open. */
  let { links = false }: { links?: boolean } = $props()

  function add(kind: (typeof kinds)[number]) {
    const sources = session.bank!.sources
    let [name, n] = [kind.name, 2]
    while (sources.some((s) => s.name === name)) name = `${kind.name} ${n++}`
    session.edit({ path: '~/sources/-', value: newSource(kind.kind, name, sources) }, true)
    bench.dialog = { what: 'source', index: sources.length }
  }
</script>

{#each kinds as kind (kind.kind)}
  <button
    type="button"
    class={links ? 'link-copper add' : 'btn btn-outline btn-sm h-auto min-h-11 justify-start'}
    data-add={kind.kind}
    onclick={() => add(kind)}>{links ? kind.name.toLowerCase() : kind.words}</button
  >
{/each}

<style>
  .add {
    min-height: 24px;
    padding: 0 4px;
  }
  @media (max-width: 939px) {
    .add {
      min-height: 44px;
    }
  }
</style>
