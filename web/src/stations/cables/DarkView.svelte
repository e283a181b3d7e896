<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import { cut } from '../../drawing/geometry'
  import AsTable from '../../ui/AsTable.svelte'
  import { num } from '../../ui/quantity'
  import { dark } from './dark.svelte'

  /** The way from the strings to each load: whatever is pressed opens, and black is what it takes along. */
  $effect(() => {
    void session.evaluation
    void session.bankIndex
    dark.ask()
  })
  let width = $state(900)
  const answer = $derived(dark.answer)
  const open = $derived(dark.element)
  const ROW = 32
  const plan = $derived.by(() => {
    if (!answer) return null
    const rank = new Map<string, number>()
    const of = (id: string): number => {
      const known = rank.get(id)
      if (known !== undefined) return known
      const e = answer.elements.find((x) => x.id === id)
      const r = !e || e.fedBy.length === 0 ? 0 : 1 + Math.max(...e.fedBy.map(of))
      rank.set(id, r)
      return r
    }
    for (const e of answer.elements) of(e.id)
    const most = Math.max(...rank.values()) + 1
    const loadX = width - 180
    const pitch = (loadX - 8) / most
    const w = Math.max(64, Math.min(128, pitch - 18))
    const loads = answer.loads.map((l, i) => ({ ...l, x: loadX, y: 12 + i * ROW }))
    const y = new Map<string, number>()
    // From the loads back: each stands in the middle of what it feeds; strings side by side.
    for (const e of [...answer.elements].sort((a, b) => of(b.id) - of(a.id))) {
      if (e.kind === 'string') continue
      const fed = [
        ...loads.filter((l) => l.fedBy === e.id).map((l) => l.y),
        ...answer.elements.filter((x) => x.fedBy.includes(e.id)).map((x) => y.get(x.id) ?? 12),
      ]
      let at = fed.length > 0 ? fed.reduce((a, b) => a + b, 0) / fed.length : 12 + loads.length * ROW
      const column = [...y].filter(([id]) => of(id) === of(e.id)).map(([, v]) => v)
      while (column.some((v) => Math.abs(v - at) < ROW)) at += 4
      y.set(e.id, at)
    }
    const strings = answer.elements.filter((e) => e.kind === 'string')
    const middle = y.get(answer.elements.find((e) => e.fedBy.length > 0)?.id ?? '') ?? 12
    const first = Math.max(12, middle - ((strings.length - 1) * ROW) / 2)
    strings.forEach((s, i) => y.set(s.id, first + i * ROW))
    const boxes = answer.elements.map((e) => ({ e, x: 8 + of(e.id) * pitch, y: y.get(e.id)!, w }))
    const height = Math.max(12 + loads.length * ROW, ...boxes.map((b) => b.y + ROW)) + 8
    return { boxes, loads, height, w, at: new Map(boxes.map((b) => [b.e.id, b])) }
  })
  /** Dead: what is opened, what follows it, and all that hangs on these alone. */
  const dead = $derived.by(() => {
    const gone = new Set<string>()
    if (!answer || !open) return gone
    gone.add(open.id)
    for (const e of answer.elements) if (open.follows.includes(e.name)) gone.add(e.id)
    let more = true
    while (more) {
      more = false
      for (const e of answer.elements)
        if (!gone.has(e.id) && e.fedBy.length > 0 && e.fedBy.every((f) => gone.has(f))) {
          gone.add(e.id)
          more = true
        }
    }
    return gone
  })
  const lost = $derived(new Set(open?.lost ?? []))
  const names = (ids: string[]) => ids.map((id) => answer!.loads.find((l) => l.id === id)?.name ?? id).join(', ')
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)
  const bare = (text: string) =>
    capital(
      text
        .replace(/^the /, '')
        .replace(/^(fuse|run) of .*/, '$1')
        .replace(/, or its fuse$/, ''),
    )
  function mark(index: number, key: 'mustStay' | 'hasReserve', value: boolean) {
    session.edit({ path: `~/demand/loads/${index}/${key}`, value }, true)
  }
</script>

{#if answer && plan}
  <Drawing name={answer.headline} bind:width height={plan.height} least={720}>
    {#each plan.boxes as b (b.e.id)}
      {#each b.e.fedBy as f (f)}
        {@const from = plan.at.get(f)!}
        <path
          d="M{from.x + from.w} {from.y + 13}H{b.x - 10}V{b.y + 13}H{b.x}"
          fill="none"
          stroke={dead.has(b.e.id) || dead.has(f) ? 'var(--ink)' : 'var(--copper)'}
          stroke-width={dead.has(f) && dead.has(b.e.id) ? 1 : 2.2}
          stroke-dasharray={dead.has(f) ? '3 3' : undefined}
        />
      {/each}
    {/each}
    {#each plan.loads as l (l.id)}
      {@const from = plan.at.get(l.fedBy)}
      {#if from}<path
          d="M{from.x + from.w} {from.y + 13}H{l.x - 10}V{l.y + 13}H{l.x}"
          fill="none"
          stroke={lost.has(l.id) ? 'var(--ink)' : 'var(--copper)'}
          stroke-width={lost.has(l.id) ? 1 : 1.6}
          stroke-dasharray={lost.has(l.id) ? '3 3' : undefined}
        />{/if}
    {/each}
    {#each plan.boxes as b (b.e.id)}
      {@const is = dead.has(b.e.id)}
      <!-- svelte-ignore a11y_no_static_element_interactions -->
      <rect
        role="button"
        tabindex="-1"
        data-stop
        class="thing"
        data-thing={b.e.id}
        data-dead={is || undefined}
        aria-pressed={dark.picked === b.e.id}
        aria-label={`${bare(b.e.name)}: ${b.e.name} opens, ${b.e.lost.length === 0 ? 'nothing is lost' : `lost are ${names(b.e.lost)}`}`}
        onclick={() => (dark.picked = dark.picked === b.e.id ? null : b.e.id)}
        onkeydown={() => {}}
        x={b.x}
        y={b.y}
        width={b.w}
        height="26"
        fill={is ? 'var(--ink)' : 'var(--sheet)'}
        stroke={dark.picked === b.e.id ? 'var(--copper)' : 'var(--ink)'}
        stroke-width={dark.picked === b.e.id ? 3 : b.e.blackout ? 2 : 1}
      />
      <text x={b.x + 6} y={b.y + 17} class="name" style:fill={is ? 'var(--sheet)' : 'var(--ink)'}
        >{cut(bare(b.e.name), Math.floor(b.w / 6.6))}</text
      >
    {/each}
    {#each plan.loads as l (l.id)}
      <rect
        x={l.x}
        y={l.y}
        width="170"
        height="26"
        fill={lost.has(l.id) ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
        stroke-width={l.mustStay ? 2.4 : 1}
        data-load={l.id}
        data-lost={lost.has(l.id) || undefined}
      />
      <text x={l.x + 7} y={l.y + 17} class="name" style:fill={lost.has(l.id) ? 'var(--sheet)' : 'var(--ink)'}
        >{cut(l.name, 15)}</text
      >
      <text
        x={l.x + 164}
        y={l.y + 17}
        text-anchor="end"
        class="fig w"
        style:fill={lost.has(l.id) ? 'var(--sheet)' : 'var(--ink)'}>{num(l.watts)} W</text
      >
    {/each}
  </Drawing>
  <p class="says" data-testid="dark-says">
    {#if open}
      <b>{capital(open.name)} opens:</b>
      {open.follows.length > 0
        ? `${open.follows.join(', ')} then ${open.follows.length === 1 ? 'follows' : 'follow'} over the limit; `
        : ''}{open.lost.length === 0
        ? 'no load is lost.'
        : `lost are ${names(open.lost)}, ${num(open.lostW)} W${open.kept.length > 0 ? `; kept are ${names(open.kept)}, ${num(open.keptW)} W` : ': all of it'}.`}
    {:else}
      Press whatever may open: black is what it takes along. A heavy frame darkens all. Plug, generator and sun are left
      out, for they come and go.
    {/if}
  </p>
  <fieldset class="stay">
    <legend class="caption">What must not go dark</legend>
    {#each answer.loads as l (l.id)}
      <span
        ><label
          ><input
            type="checkbox"
            class="checkbox checkbox-xs"
            checked={l.mustStay}
            data-stay={l.id}
            onchange={(e) => mark(l.index, 'mustStay', e.currentTarget.checked)}
          />
          {l.name}</label
        >{#if l.mustStay}<label class="note"
            ><input
              type="checkbox"
              class="checkbox checkbox-xs"
              checked={l.hasReserve}
              onchange={(e) => mark(l.index, 'hasReserve', e.currentTarget.checked)}
            /> has a reserve</label
          >{/if}</span
      >
    {/each}
  </fieldset>
  <AsTable
    heads={['when this opens', 'lost', 'kept', 'follows']}
    rows={[]}
    plain={answer.elements.map((e) => [
      capital(e.name),
      e.lost.length === 0 ? 'nothing' : `${names(e.lost)}, ${num(e.lostW)} W`,
      e.kept.length === 0 ? 'nothing' : names(e.kept),
      e.follows.join(', ') || 'nothing',
    ])}
  />
{:else}
  <p class="note mt-3" role="status">
    {dark.away ?? session.result?.because.mainRun ?? (answer ? 'No load hangs on this bank yet.' : 'One moment…')}
  </p>
{/if}

<style>
  .thing {
    cursor: pointer;
  }
  .name {
    pointer-events: none;
    font-size: 12.5px;
  }
  .w {
    font-size: 12.5px;
  }
  .says {
    font-size: 13.5px;
    margin-top: 4px;
    max-width: 900px;
  }
  .stay {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    margin-top: 6px;
    font-size: 13px;
  }
  .stay > span,
  .stay label {
    display: inline-flex;
    gap: 5px;
    align-items: center;
    min-height: 26px;
  }
  .stay legend {
    width: 100%;
  }
  @media (max-width: 939px) {
    .stay label {
      min-height: 44px;
    }
  }
</style>
