<script lang="ts">
  import type { WalkSection } from '../api/client'

  /** Plain sentences, one act each, numbered through. */
  let { sections }: { sections: readonly WalkSection[] } = $props()
</script>

<div class="words">
  {#each sections as s, n (n)}
    <section>
      <h3>{n + 1} {s.title}</h3>
      <ol>
        {#each s.sentences as sentence, i (i)}<li>{sentence}</li>{/each}
      </ol>
    </section>
  {/each}
</div>

<style>
  .words {
    max-width: 76ch;
    font-size: 13px;
  }
  h3 {
    font-weight: 700;
    margin: 8px 0 2px;
    break-after: avoid;
  }
  ol {
    list-style: decimal;
    padding-left: 24px;
  }
  li {
    break-inside: avoid;
    margin-bottom: 1px;
  }
</style>
