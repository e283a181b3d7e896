<script lang="ts">
  import type { Snippet } from 'svelte'
  import { api } from '../api/client'
  import type { GlossaryWord } from '../api/client'
  import { route } from '../app/route.svelte'
  import { session } from '../app/session.svelte'

  /** The words of the job, what they are mixed up with, and what they are in the open design. */
  let { views }: { views: Snippet } = $props()
  let words = $state.raw<readonly GlossaryWord[]>([])
  let trouble = $state<string | null>(null)
  let sought = $state('')

  $effect(() => {
    const design = session.worked
    const bank = session.bankIndex
    void session.evaluation
    if (!design) return
    const timer = setTimeout(async () => {
      try {
        words = await api.words(design, bank)
        trouble = null
      } catch (e) {
        trouble = e instanceof Error ? e.message : 'The server does not answer.'
      }
    }, 60)
    return () => clearTimeout(timer)
  })
  const key = $derived(route.practising?.word ?? null)
  const word = $derived(words.find((w) => w.key === key) ?? words[0] ?? null)
  const found = $derived(
    words.filter((w) =>
      [w.term, ...w.aliases, w.mixedUp].some((t) => t.toLowerCase().includes(sought.trim().toLowerCase())),
    ),
  )
  const to = (k: string) => route.go(`#/d/${session.id}/practice/words/${k}`)
  $effect(() => {
    void word
    session.release()
  })
</script>

<main class="practice-sheet">
  <div>
    <h1 class="headline" data-testid="headline">
      {trouble
        ? 'The server does not answer'
        : word
          ? `${word.term}: ${word.words.charAt(0).toLowerCase()}${word.words.slice(1)}`
          : 'The words of the job'}
    </h1>
    {@render views()}
    {#if trouble}<p class="note" role="alert">{trouble}</p>{/if}
    {#if word}
      <article data-testid="word">
        <p class="mixed"><b>Mixed up.</b> {word.mixedUp}</p>
        {#if word.here}
          <p class="here">
            <span class="caption">in {session.evaluation!.name}</span><br />
            <span class="fig figure" data-testid="here">{word.here}</span>
            {#if word.pointer}<button type="button" class="link-copper" onclick={() => session.select(word!.pointer!)}
                >its working</button
              >{/if}
          </p>
        {:else}<p class="caption here">This design has none of it.</p>{/if}
        {#if word.aliases.length > 0}<p class="caption">also said: {word.aliases.join(', ')}</p>{/if}
      </article>
    {/if}
    <p class="caption more">
      A word with dots under it opens here when it is pressed, on any screen; any other word when it is pressed twice.
    </p>
    <table class="all" aria-label="The words in this design">
      <tbody>
        {#each words.filter((w) => w.here) as w (w.key)}
          <tr class={[w === word && 'on']}>
            <th scope="row"><button type="button" class="plain" onclick={() => to(w.key)}>{w.term}</button></th>
            <td>{w.here}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  <nav class="side" aria-label="Words">
    <input
      class="input input-sm"
      placeholder="look for a word"
      aria-label="Look for a word"
      data-testid="seek"
      bind:value={sought}
    />
    <ul>
      {#each found as w (w.key)}
        <li>
          <button type="button" class={['word', w === word && 'on']} aria-pressed={w === word} onclick={() => to(w.key)}
            >{w.term}</button
          >
        </li>
      {/each}
    </ul>
    {#if found.length === 0}<p class="caption">No such word, nor one that is mixed up with it.</p>{/if}
  </nav>
</main>

<style>
  article {
    margin-top: 16px;
    max-width: 68ch;
  }
  .mixed {
    font-size: 15px;
    line-height: 1.45;
  }
  .here {
    margin: 18px 0 12px;
  }
  .figure {
    font-size: 26px;
    line-height: 1.2;
  }
  .more {
    margin: 18px 0 8px;
  }
  .all {
    width: 100%;
    max-width: 760px;
    border-top: 1px solid var(--hair);
  }
  .all th,
  .all td {
    text-align: left;
    font-weight: 400;
    padding: 2px 8px 2px 4px;
    border-bottom: 1px solid var(--grid);
    vertical-align: top;
  }
  .all .on {
    background: var(--tint);
  }
  .plain {
    min-height: 24px;
    cursor: pointer;
    text-align: left;
  }
  .side input {
    width: 100%;
    margin-bottom: 6px;
  }
  .word {
    width: 100%;
    text-align: left;
    padding: 2px 6px;
    min-height: 24px;
    cursor: pointer;
  }
  .word.on {
    background: var(--tint);
    font-weight: 650;
  }
  @media (max-width: 939px) {
    .word {
      min-height: 44px;
    }
    .figure {
      font-size: 20px;
    }
  }
</style>
