<script lang="ts">
  import { api, Refused } from '../../api/client'
  import type { OwnTables, TableCsv } from '../../api/client'
  import { session } from '../../app/session.svelte'
  import { withChanges } from '../../ui/pointer'
  import { parse } from '../../ui/quantity'
  import type { Kind } from '../../ui/quantity'

  /** A table brought in as CSV: what it is follows from its columns; where it is from is said in words. */
  let { onleave }: { onleave: () => void } = $props()
  let csv = $state('')
  let told = $state('')
  let answer = $state.raw<TableCsv | null>(null)
  let label = $state('')
  let source = $state('')
  let insulation = $state(90)
  let ambient = $state('30')
  let building = $state(false)
  let maxV = $state('')
  let breaks = $state('')
  let ratings = $state('')
  let price = $state('')
  let limits = $state(false)
  let breaker = $state(false)

  async function read(text: string) {
    csv = text
    told = ''
    try {
      answer = await api.tableCsv(text)
    } catch (e) {
      told = e instanceof Error ? e.message : 'It could not be read.'
    }
  }
  const kind = $derived(
    !answer
      ? null
      : answer.curve.length > 0
        ? 'curve'
        : answer.ampacities.length > 0
          ? 'ampacity'
          : answer.conductors.length > 0
            ? 'conductors'
            : answer.drawer.length > 0
              ? 'drawer'
              : null,
  )
  const idOf = () => `own-${Date.now().toString(36)}`

  /** What is said of the table in its fields; a field that cannot be read is told, and nothing is taken in. */
  function number(field: string, text: string, kind: Kind): number {
    const read = parse(text, kind, session.units, (v) => v > 0)
    if ('reason' in read) throw new Unread(`${field}: ${text.trim() === '' ? 'is missing' : read.reason}`)
    return read.value
  }
  class Unread extends Error {}

  /** The design's tables with this one among them. */
  function withIt(read: TableCsv): OwnTables {
    const t = session.design!.tables
    const said = source.trim()
    if (kind !== 'drawer' && said === '')
      throw new Unread('Say where it is from: the maker’s sheet with its date, a standard, a page.')
    const name = label.trim() || (kind === 'curve' ? 'Own fuse' : 'Own table')
    const next: OwnTables = {
      ...t,
      conductors: [
        ...t.conductors.filter((c) => !read.conductors.some((x) => x.size === c.size)),
        ...read.conductors.map((c) => ({ ...c, source: said })),
      ],
    }
    if (kind === 'drawer') return { ...next, drawer: [...t.drawer, ...read.drawer] }
    if (kind === 'ampacity')
      return {
        ...next,
        practices: [
          ...t.practices,
          {
            id: idOf(),
            label: name,
            source: said,
            insulationC: insulation,
            referenceC: number('table is for', ambient, 'number'),
            bundling: building ? 'building' : 'craft',
            rows: read.ampacities,
          },
        ],
      }
    if (kind === 'curve')
      return {
        ...next,
        fuses: [
          ...t.fuses,
          {
            id: idOf(),
            label: name,
            source: said,
            maxDcV: number('made for', maxV, 'voltage'),
            interruptA: number('breaks', breaks, 'current'),
            limitsCurrent: limits,
            breaker,
            price: price.trim() === '' ? null : number('price', price, 'number'),
            ratingsA: ratings
              .split(/[\s;]+/)
              .filter(Boolean)
              .map((r) => number('ratings made', r, 'current'))
              .sort((a, b) => a - b),
            curve: read.curve,
          },
        ],
      }
    return next
  }

  async function take() {
    told = ''
    try {
      const tables = withIt(answer!)
      // What the server would not take never becomes an edit.
      await api.evaluate(withChanges(session.design!, [{ path: '/tables', value: tables }]))
      session.edit({ path: '/tables', value: tables }, true)
      onleave()
    } catch (e) {
      told =
        e instanceof Refused && e.faults.length > 0
          ? `${e.faults[0].pointer.replace(/^\/tables\//, '').replaceAll('/', ' ')}: ${e.faults[0].reason}`
          : e instanceof Error
            ? e.message
            : 'It could not be taken in.'
    }
  }
  const what = $derived(
    kind === 'curve'
      ? `a fuse’s curve, ${answer!.curve.length} points`
      : kind === 'ampacity'
        ? `amperes of ${answer!.ampacities.length} sizes`
        : kind === 'conductors'
          ? `${answer!.conductors.length} conductors`
          : kind === 'drawer'
            ? `copper at hand, ${answer!.drawer.length} pieces`
            : 'nothing that is known',
  )
</script>

<label class="block mt-2"
  ><span class="caption"
    >Paste it here, or open a file: <code>size,ampacity_a</code>; a fuse <code>multiple,least_s,most_s</code>;
    conductors
    <code>size,area_mm2,milliohm_per_m</code>; copper at hand <code>size,length_m</code></span
  >
  <textarea
    class="textarea w-full"
    rows="6"
    spellcheck="false"
    placeholder={'multiple,least_s,most_s\n1.4,200,500\n3,1,1.8\n8,0.01,0.02'}
    bind:value={csv}></textarea></label
>
<div class="flex flex-wrap gap-2 mt-1">
  <button type="button" class="btn btn-outline btn-sm" onclick={() => read(csv)} disabled={csv.trim() === ''}
    >Read it</button
  >
  <label class="btn btn-outline btn-sm"
    >Open a file<input
      type="file"
      accept=".csv,.txt,text/csv"
      class="sr-only"
      onchange={async (e) => {
        const file = e.currentTarget.files?.[0]
        if (file) await read(await file.text())
      }}
    /></label
  >
</div>
{#if answer}
  <p class="note mt-2" data-testid="table-read">It is {what}.</p>
  {#each answer.bad as bad (bad.line)}<p class="note">line {bad.line}: {bad.reason}</p>{/each}
  {#if kind && kind !== 'drawer'}
    <div class="fields">
      {#if kind !== 'conductors'}<label
          ><span class="caption">what it is called</span><input
            class="input input-sm"
            maxlength="80"
            bind:value={label}
          /></label
        >{/if}
      <label class="wide"
        ><span class="caption">where it is from, in words</span><input
          class="input input-sm w-full"
          maxlength="300"
          placeholder="the maker’s sheet of March 2026, page 4"
          bind:value={source}
        /></label
      >
      {#if kind === 'ampacity'}
        <label
          ><span class="caption">its insulation bears</span><select class="select select-sm" bind:value={insulation}>
            {#each [70, 75, 90, 105] as c (c)}<option value={c}>{c} °C</option>{/each}
          </select></label
        >
        <label
          ><span class="caption">table is for, °C</span><input
            class="input input-sm w-20"
            inputmode="decimal"
            bind:value={ambient}
          /></label
        >
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={building} /> bundled as in buildings</label
        >
      {/if}
      {#if kind === 'curve'}
        <label
          ><span class="caption">made for, V DC</span><input
            class="input input-sm w-20"
            inputmode="decimal"
            bind:value={maxV}
          /></label
        >
        <label
          ><span class="caption">breaks, A</span><input
            class="input input-sm w-24"
            inputmode="decimal"
            bind:value={breaks}
          /></label
        >
        <label
          ><span class="caption">price with holder</span><input
            class="input input-sm w-20"
            inputmode="decimal"
            placeholder="not known"
            bind:value={price}
          /></label
        >
        <label class="wide"
          ><span class="caption">ratings made, A</span><input
            class="input input-sm w-full"
            placeholder="60 80 100 125 150"
            bind:value={ratings}
          /></label
        >
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={limits} /> limits the current</label
        >
        <label class="tick"
          ><input type="checkbox" class="checkbox checkbox-sm" bind:checked={breaker} /> a breaker</label
        >
      {/if}
    </div>
  {/if}
  {#if kind}<button type="button" class="btn btn-primary btn-sm mt-2" onclick={take}>Take it in</button>{/if}
{/if}
<p class="note mt-1" role="alert" data-testid="table-told">{told}</p>
<button type="button" class="link-copper text-[12.5px] min-h-6" onclick={onleave}>back</button>

<style>
  .fields {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    margin-top: 6px;
    align-items: flex-end;
  }
  .fields label {
    display: inline-flex;
    flex-direction: column;
  }
  .fields .wide {
    flex: 1 1 260px;
  }
  .fields .tick {
    flex-direction: row;
    gap: 6px;
    align-items: center;
    min-height: 32px;
    font-size: 12.5px;
  }
  code {
    font-size: 12px;
  }
</style>
