<script lang="ts">
  import { session } from '../app/session.svelte'
  import { nudge } from '../drawing/nudge'
  import { ticks } from '../drawing/geometry'
  import { answer, num, parse, plainNumber } from '../ui/quantity'
  import TypedField from '../ui/TypedField.svelte'
  import { builds, letter } from './bench.svelte'

  /** What would turn it: whole costs over the price of one unit, crossing; the price on a slider; hours and cycles in words. */
  let { money }: { money: (value: number, decimals?: number) => string } = $props()
  const c = $derived(builds.comparison!)
  const subject = $derived(Math.max(0, Math.min(builds.keys.indexOf(builds.subject), c.builds.length - 1)))
  const a = $derived(c.builds[subject])
  const [w, h, left, bottom] = [240, 170, 40, 22]
  /** None where nobody knows what something of it costs. */
  const line = $derived(c.lines.find((l) => l.key === a.key))
  const high = $derived(line?.to.price ?? 1)
  const totals = $derived(c.lines.flatMap((l) => [l.from.total, l.to.total]))
  const [lowY, highY] = $derived([Math.min(...totals, Infinity) * 0.95, Math.max(...totals, 1) * 1.02])
  const x = (price: number) => left + (price / high) * (w - left - 8)
  const y = (total: number) => h - bottom - ((total - lowY) / (highY - lowY)) * (h - bottom - 8)
  const flips = $derived(c.flips.filter((f) => f.kind === 'unit-price' && f.at !== null && f.at <= high))
  const indexOf = (key: string) => c.builds.findIndex((b) => b.key === key)
  const price = $derived(builds.tryPrice ?? a.unitPrice ?? 0)

  let timer: ReturnType<typeof setTimeout> | undefined
  const rate = $derived(builds.tryRate ?? c.hourRate)
  const cycles = $derived(builds.tryCycles ?? c.cyclesPerYear)
  function soon() {
    clearTimeout(timer)
    timer = setTimeout(() => void builds.compare(), 30)
  }
  function tryIt(value: number | null) {
    builds.tryPrice = value
    soon()
  }
  const set = $derived(session.design!.prices.sets.findIndex((x) => x.id === session.design!.prices.inUse))
  const inSet = $derived(set >= 0 ? session.design!.prices.sets[set] : null)
  /** Kept where it counts: in the set in use, where that has a say, else as one's own. */
  function keep(value: number) {
    const key = a.choice.unit.key
    const today = new Date().toISOString().slice(0, 10)
    builds.tryPrice = null
    if (inSet) {
      const line = { kind: 'unit' as const, key, size: null, price: value, inStock: null }
      const known = inSet.prices.find((p) => p.kind === 'unit' && p.key === key)
      const prices = known
        ? inSet.prices.map((p) => (p === known ? { ...p, price: value } : p))
        : [...inSet.prices, line]
      session.edit({ path: `/prices/sets/${set}/prices`, value: prices }, true)
      return
    }
    const rest = session.design!.prices.units.filter((u) => u.key !== key)
    session.edit({ path: '/prices/units', value: [...rest, { key, price: value, date: today }] }, true)
  }
  const own = $derived(inSet ? undefined : session.design!.prices.units.find((u) => u.key === a.choice.unit.key))
  function read(typed: string) {
    const fits = (value: number) => value >= 0 && value <= 1_000_000
    const parsed = parse(typed, 'number', 'metric', fits)
    if ('value' in parsed && !fits(parsed.value)) return { reason: 'must be 0 to 1,000,000' }
    return answer(parsed, plainNumber, keep)
  }
</script>

<section aria-labelledby="turns-title" class="turns">
  <h3 id="turns-title" class="font-bold text-[13.5px]">What would turn it: the price of {a.choice.unit.name}</h3>
  {#if line}
    <svg
      width="100%"
      viewBox="0 0 {w} {h}"
      role="img"
      use:nudge
      aria-label="Whole cost of each build over the price of {a.choice.unit.name}"
    >
      {#each ticks(highY, 4).filter((t) => t >= lowY && t <= highY) as t (t)}
        <line x1={left} x2={w - 8} y1={y(t)} y2={y(t)} stroke="var(--grid)" />
        <text x={left - 4} y={y(t) + 4} text-anchor="end" class="fig">{num(t)}</text>
      {/each}
      {#each ticks(high, 3) as t (t)}{#if t <= high}<text x={x(t)} y={h - 6} text-anchor="middle" class="fig"
            >{num(t)}</text
          >{/if}{/each}
      {#each c.lines as l (l.key)}
        {@const on = l.key === a.key}
        <line
          x1={x(l.from.price)}
          y1={y(l.from.total)}
          x2={x(l.to.price)}
          y2={y(l.to.total)}
          stroke={on ? 'var(--copper)' : 'var(--ink)'}
          stroke-width={on ? 3 : 1.3}
          stroke-dasharray={on ? undefined : '4 3'}
        />
        <text x={w - 6} y={Math.max(12, y(l.to.total) - 4)} text-anchor="end" class="fig key" data-give
          >{letter(indexOf(l.key))}</text
        >
      {/each}
      {#each flips as f (f.b)}
        {@const at = c.lines.find((l) => l.key === f.b)!}
        <circle
          cx={x(f.at!)}
          cy={y(at.from.total + ((at.to.total - at.from.total) * f.at!) / high)}
          r="4"
          fill="var(--sheet)"
          stroke="var(--copper)"
          stroke-width="2"
        />
      {/each}
      <line x1={x(price)} x2={x(price)} y1="6" y2={h - bottom} stroke="var(--ink)" stroke-width="1.5" />
    </svg>
    <label class="block"
      ><span class="sr-only">a price to try for {a.choice.unit.name}</span><input
        type="range"
        class="range-plain"
        min="0"
        max={high}
        step={Math.max(1, Math.round(high / 200))}
        value={price}
        data-testid="try-price"
        oninput={(e) => tryIt(Number(e.currentTarget.value))}
      /></label
    >
  {:else}<p class="note">What {letter(subject)} costs is not known: {a.bill.unknown.join(', ')}.</p>{/if}
  <div class="flex flex-wrap items-end gap-x-3 gap-y-1">
    <TypedField
      label="price of one, {inSet?.name ?? own?.date ?? session.design!.prices.date ?? 'catalogue'}"
      text={a.unitPrice === null ? '' : plainNumber(a.unitPrice)}
      placeholder="not known"
      {read}
      snapshot={() => [{ path: '/prices', value: session.design!.prices }]}
      width="84px"
      path="/prices/unit"
    />
    {#if builds.tryPrice !== null}
      <span class="note" data-testid="tried"
        >tried: {money(price)} each, {letter(subject)} is {money(a.bill.total)}</span
      >
      <button type="button" class="link-copper text-[12.5px] min-h-6" onclick={() => tryIt(null)}
        >back to its price</button
      >
    {:else if own}
      <button
        type="button"
        class="link-copper text-[12.5px] min-h-6"
        onclick={() =>
          session.edit(
            { path: '/prices/units', value: session.design!.prices.units.filter((u) => u.key !== own.key) },
            true,
          )}>back to the catalogue’s</button
      >
    {/if}
  </div>
  <div class="tries">
    <label
      ><span class="caption">an hour’s work{builds.tryRate === null ? '' : `, tried: ${money(rate)}`}</span><input
        type="range"
        class="range-plain"
        min="0"
        max="150"
        step="1"
        value={rate}
        data-testid="try-rate"
        oninput={(e) => {
          builds.tryRate = Number(e.currentTarget.value)
          soon()
        }}
      /></label
    >
    <label
      ><span class="caption">cycles a year{builds.tryCycles === null ? '' : `, tried: ${num(cycles)}`}</span><input
        type="range"
        class="range-plain"
        min="0"
        max="400"
        step="1"
        value={cycles}
        data-testid="try-cycles"
        oninput={(e) => {
          builds.tryCycles = Number(e.currentTarget.value)
          soon()
        }}
      /></label
    >
    {#if builds.tryRate !== null || builds.tryCycles !== null}
      <button
        type="button"
        class="link-copper text-[12.5px] min-h-6"
        onclick={() => {
          builds.tryRate = builds.tryCycles = null
          soon()
        }}>back to the design’s</button
      >
    {/if}
  </div>
  <ul class="flips" data-testid="flips">
    {#each c.flips as f, i (i)}
      {#if f.at !== null}<li><b class="fig">{letter(indexOf(f.a))}–{letter(indexOf(f.b))}</b> {f.sentence}.</li>{/if}
    {/each}
    {#if c.flips.every((f) => f.at === null)}<li class="note">Nothing sensible turns it.</li>{/if}
  </ul>
</section>

<style>
  .turns {
    border-top: 1px solid var(--hair);
    padding-top: 10px;
    margin-top: 10px;
  }
  svg text {
    font-size: 11px;
  }
  .key {
    font-size: 13px;
  }
  .range-plain {
    width: 100%;
    height: 26px;
    accent-color: var(--ink);
  }
  .tries {
    margin-top: 6px;
  }
  .tries label {
    display: block;
  }
  .flips {
    font-size: 12.5px;
    margin-top: 6px;
  }
  li {
    padding: 2px 0;
  }
  @media (max-width: 939px) {
    .range-plain,
    button {
      min-height: 44px;
    }
  }
</style>
