<script lang="ts">
  import type { Schemas } from '../api/client'

  /** This go in minutes, each answer at its time. Nothing counts down. */
  interface Props {
    answers: readonly Schemas['JudgedAnswer'][]
    spentS: number
    over: boolean
  }
  let { answers, spentS, over }: Props = $props()
  let width = $state(800)
  const most = $derived(Math.max(10, Math.ceil(Math.max(spentS, answers.at(-1)?.answer.atS ?? 0) / 60 / 5) * 5))
  const x = (s: number) => 62 + (s / 60 / most) * (width - 92)
  const step = $derived(most <= 10 ? 2 : most <= 20 ? 5 : 10)
  /** Flags close together are moved on, so that none lies over another. */
  const flags = $derived.by(() => {
    let last = -Infinity
    return answers
      .filter((a) => a.number > 0 && a.is !== 'again')
      .map((a) => {
        last = Math.max(x(a.answer.atS), last + 19)
        return { ...a, at: last }
      })
  })
</script>

<div class="line" bind:clientWidth={width}>
  <svg
    {width}
    height="40"
    viewBox="0 0 {width} 40"
    role="img"
    aria-label="This go: {answers.length} answers in {Math.ceil(spentS / 60)} min"
  >
    <text x="0" y="18" style:font-weight="650">this go</text>
    <path d="M{x(0)} 14H{x(most * 60)}" stroke="var(--ink-3)" />
    {#each { length: most / step + 1 } as _, i (i)}
      <path d="M{x(i * step * 60)} 10v8" stroke="var(--ink-3)" />
      <text x={x(i * step * 60)} y="36" text-anchor="middle" class="fig" style:font-size="11px"
        >{i * step}{i === most / step ? ' min' : ''}</text
      >
    {/each}
    {#each flags as a (a.number)}
      <rect
        x={a.at - 8}
        y="6"
        width="16"
        height="16"
        fill={a.is === 'miss' ? 'var(--sheet)' : 'var(--ink)'}
        stroke="var(--ink)"
      />
      {#if a.is === 'miss'}<path d="M{a.at - 8} 22L{a.at + 8} 6" stroke="var(--ink)" />{/if}
      <text
        x={a.at}
        y="18.5"
        text-anchor="middle"
        class="fig"
        style:font-size="11.5px"
        style:fill={a.is === 'miss' ? 'var(--ink)' : 'var(--sheet)'}
        style:--ground={a.is === 'miss' ? 'var(--sheet)' : 'var(--ink)'}>{a.number}</text
      >
    {/each}
    {#if !over}<path d="M{x(spentS) - 5} 0h10l-5 7z" fill="var(--copper)" />{/if}
  </svg>
</div>

<style>
  .line {
    overflow: hidden;
  }
  svg {
    display: block;
  }
</style>
