<script lang="ts">
  import Dialog from '../ui/Dialog.svelte'
  import { guessing } from './guessing.svelte'
  import { session } from './session.svelte'

  /** A covered figure: say it first. */
  let typed = $state('')
  const question = $derived(guessing.open)
  $effect(() => {
    void question
    typed = ''
  })
  const shut = () => (guessing.open = null)
  $effect(() => {
    void session.evaluation
    void session.bankIndex
    void guessing.on
    const timer = setTimeout(() => void guessing.ask(), 120)
    return () => clearTimeout(timer)
  })
</script>

<Dialog open={question !== null} title="Guess first" onclose={shut}>
  {#if question}
    <p>{question.ask}</p>
    {#if guessing.answer}
      <p class="told" data-testid="dialog-judged">{guessing.answer.judged.words}</p>
      <p class="note">{guessing.answer.judged.thumb} {guessing.answer.judged.fails}</p>
      <p class="acts">
        <button type="button" class="btn btn-sm btn-primary" onclick={shut}>Go on</button>
        <span class="caption">{guessing.answer.trend.words}</span>
      </p>
    {:else}
      <label class="said">
        <input
          class="fig"
          data-testid="dialog-guess"
          inputmode="decimal"
          autocomplete="off"
          aria-label="Your guess in {question.unit}"
          bind:value={typed}
          onkeydown={(e) => e.key === 'Enter' && guessing.say(typed)}
        /><span class="fig">{question.unit}</span>
      </label>
      {#if guessing.trouble}<p class="note" role="alert">{guessing.trouble}</p>{/if}
      <p class="acts">
        <button type="button" class="btn btn-sm btn-primary" onclick={() => guessing.say(typed)}>Say it</button>
        <button
          type="button"
          class="link-copper"
          onclick={() => {
            guessing.uncover(question.pointer)
            shut()
          }}>show it without</button
        >
        <button
          type="button"
          class="link-copper"
          onclick={() => {
            guessing.turn(false)
            shut()
          }}>stop covering</button
        >
      </p>
    {/if}
  {/if}
</Dialog>

<style>
  .said {
    display: flex;
    align-items: baseline;
    gap: 8px;
    margin: 12px 0;
  }
  .said input {
    width: 160px;
    font-size: 30px;
    text-align: right;
    border: 0;
    border-bottom: 4px double var(--ink);
    background: none;
  }
  .told {
    font-weight: 650;
    font-size: 16px;
    margin: 10px 0 4px;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 12px;
    align-items: center;
    margin-top: 12px;
  }
</style>
