<script lang="ts">
  import type { Station } from '../api/client'
  import { session } from '../app/session.svelte'
  import { Trying } from '../findings/trying.svelte'
  import { stationOf } from '../stations'
  import Mark from './Mark.svelte'

  /** The margin notes of a station: what is wrong or worth a look, with the mends and what each will bring. */
  /** `first`: rules of what is looked at, or its place with a `/`, which come before all others; `only`: the others are folded. */
  let { station, first = '', only = false }: { station: Station; first?: string; only?: boolean } = $props()
  const also = $derived(stationOf(station).also ?? [])
  const found = $derived(
    session.evaluation!.findings.filter(
      (f) => (f.station === station || also.includes(f.rule)) && f.bank === session.result?.id,
    ),
  )
  let all = $state(false)
  const about = (f: (typeof found)[number]) =>
    first.startsWith('/') ? f.place.endsWith(first) : f.rule.startsWith(first)
  const here = $derived(
    first === '' ? found : [...found.filter(about), ...(only && !all ? [] : found.filter((f) => !about(f)))],
  )
  const others = $derived(only ? found.filter((f) => !about(f)).length : 0)

  const trying = new Trying()
</script>

<aside aria-label="Findings" class="flex flex-col">
  {#each here as finding (finding.rule + finding.place)}
    <section class="finding" data-rule={finding.rule}>
      <h3 class="flex items-baseline gap-1.5 font-bold text-[13.5px] leading-tight">
        {#if finding.grade !== 'note'}<Mark kind={finding.grade === 'caution' ? 'look' : 'wrong'} />{/if}
        <span
          >{#if finding.grade === 'danger' || finding.grade === 'note'}<span
              class={finding.grade === 'note' ? 'caption mr-1' : 'danger'}>{finding.grade}</span
            >{/if}{finding.title}</span
        >
      </h3>
      <p class="note mt-0.5">{finding.why}</p>
      {#each trying.mendsOf(finding) as mend, i (mend.label)}
        <div class="flex flex-wrap items-center justify-between gap-x-2 gap-y-0.5 mt-1.5">
          {#if i === 0}
            <button
              type="button"
              class="btn btn-primary btn-sm h-auto min-h-7 py-1 text-left whitespace-normal shrink max-w-full"
              aria-disabled={trying.stale}
              onclick={() => trying.press(finding, mend.label)}>{mend.label}</button
            >
          {:else}
            <button
              type="button"
              class="link-copper text-left text-[12.5px] min-h-6"
              aria-disabled={trying.stale}
              onclick={() => trying.press(finding, mend.label)}
              >Or {mend.label.charAt(0).toLowerCase() + mend.label.slice(1)}</button
            >
          {/if}
          <span class="note">{mend.outcome}</span>
        </div>
      {/each}
    </section>
  {:else}
    <p class="note">
      {#if others > 0}Nothing found wrong on this run.{:else if session.mark(station) === 'none'}Nothing to judge yet.{:else}Nothing
        found wrong here, it fits <Mark kind="fits" size={8} />{/if}
    </p>
  {/each}
  {#if others > 0}
    <button type="button" class="link-copper text-[12.5px] text-left min-h-6" onclick={() => (all = !all)}
      >{all ? 'only this run' : `${others} ${others === 1 ? 'other finding' : 'other findings'} of the station`}</button
    >
  {/if}
</aside>

<style>
  .danger {
    background: var(--ink);
    color: var(--sheet);
    font-size: 11.5px;
    padding: 0 4px;
    margin-right: 2px;
  }
  .finding {
    padding-bottom: 10px;
    margin-bottom: 10px;
    border-bottom: 1px solid var(--hair);
  }
  .finding:last-child {
    border-bottom: 0;
  }
</style>
