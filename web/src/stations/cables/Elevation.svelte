<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Drawing from '../../drawing/Drawing.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import { num, say } from '../../ui/quantity'
  import Columns from './Columns.svelte'
  import { hand } from './hand.svelte'
  import { bankColumns, runColumn } from './loop'
  import Poles from './Poles.svelte'

  /** The run in hand unrolled: load, fuse and copper must rise in that order; beneath it the volts that are lost on the way. */
  let height = $state(340)
  let width = $state(900)
  const e = $derived(session.result!)
  const view = $derived(hand.view!)
  const narrow = $derived(width < 560)
  const left = 52
  const end = $derived(width - 14)
  const base = $derived(Math.round(height * 0.39))
  const inside = $derived(view.main ? bankColumns(e, narrow) : [])
  const share = $derived(inside.length === 0 ? 0 : Math.min(0.36, Math.max(0.15, 0.09 * inside.length)))
  const post = $derived(left + (width - left) * share)
  const columns = $derived([
    ...inside.map((c, i) => ({
      ...c,
      x1: left + ((post - left) * i) / inside.length,
      x2: left + ((post - left) * (i + 1)) / inside.length,
    })),
    { ...runColumn(view), x1: post, x2: end },
  ])
  const word = (amps: number) => (amps > 0 ? say(amps, 'A') : 'none')
  const order = $derived(
    columns.every((c) => c.fuse === 0 || (c.load <= c.fuse * 1.0000001 && c.fuse <= c.copper * 1.0000001)),
  )
</script>

<Drawing
  name={view.main
    ? e.headlines.cables
    : `${view.name}: ${order ? 'load, fuse and copper rise in that order' : 'out of order'}`}
  bind:height
  fill
  bind:width
  least={340}
  floor={330}
>
  <Columns {columns} {left} {end} {base} {narrow} />
  <Poles {view} {columns} {left} {post} {end} top={base} {height} {narrow} />
</Drawing>
<AsTable
  heads={['where', 'load', 'fuse passes', 'copper carries', 'in that order']}
  rows={[]}
  plain={columns.map((c) => [
    c.name,
    word(c.load),
    word(c.fuse),
    word(c.copper),
    c.fuse === 0
      ? 'no fuse'
      : c.fuse > c.copper * 1.0000001
        ? `no, ${num(c.fuse - c.copper, 1)} A over`
        : c.load > c.fuse
          ? 'no, the fuse opens'
          : 'yes',
  ])}
/>
