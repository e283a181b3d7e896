<script lang="ts">
  import { session } from '../../app/session.svelte'
  import AsTable from '../../ui/AsTable.svelte'
  import Mark from '../../ui/Mark.svelte'
  import { num, say } from '../../ui/quantity'
  import { ac } from './ac.svelte'
  import AcBoardDrawing from './AcBoardDrawing.svelte'
  import { nameOf } from './acLayout'
  import type { AcPart } from './acLayout'
  import AcPartFields from './AcPartFields.svelte'

  /** The AC side as one drawing that is edited and turned: every position of every switch is tried. */
  $effect(() => {
    void session.evaluation
    ac.ask()
  })
  const drawing = $derived(ac.drawing)
  const board = $derived(drawing.parts.length > 0 ? ac.answer : null)
  const here = $derived(board?.states[ac.state] ?? null)
  const kinds: [AcPart['kind'], string][] = [
    ['plug', 'plug or mains'],
    ['generator', 'generator'],
    ['inverter', 'inverter'],
    ['charger', 'charger'],
    ['transfer', 'transfer switch'],
    ['selector', 'selector'],
    ['panel', 'panel'],
    ['circuit', 'circuit'],
  ]
  const of = (id: string) => {
    const part = drawing.parts.find((p) => p.id === id)
    return part ? nameOf(part) : id
  }
  const graver = (troubles: number[]) =>
    troubles.some((t) => !['continuous', 'unfed'].includes(board!.troubles[t].kind))
      ? 'wrong'
      : troubles.length > 0
        ? 'look'
        : 'fits'
  type Feed = NonNullable<typeof here>['feeds'][number]
  const chargers = (f: Feed) =>
    f.chargers === 0
      ? ''
      : f.chargers === 1
        ? ' for the charger'
        : ` for ${f.chargers} chargers, which ask for ${num(f.chargersAsk)} ${unit(f.source)}`
  const unit = (source: string) => (drawing.parts.find((p) => p.id === source)?.kind === 'generator' ? 'W' : 'VA')
</script>

{#if drawing.parts.length === 0}
  <div class="empty" data-testid="ac-empty">
    <p>
      Plug, generator, inverter, chargers, switches and panels as one drawing: every position of every switch is tried
      for loops, for two supplies on one panel, for contacts that are too small, and for what remains for the charger.
    </p>
    <div class="flex flex-wrap gap-3 mt-3">
      <button type="button" class="btn btn-primary btn-sm" onclick={() => ac.start('pass-through')}
        >Pass-through with a transfer switch</button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => ac.start('separate-panel')}
        >A panel of its own by a selector</button
      >
      <button type="button" class="btn btn-outline btn-sm" onclick={() => ac.add('plug')}>An empty drawing</button>
    </div>
  </div>
{:else}
  <div class="bar">
    <label class="inline-flex items-center gap-1"
      ><span class="caption">add</span><select
        class="select select-xs"
        value=""
        data-testid="ac-add"
        onchange={(e) => {
          const kind = e.currentTarget.value as AcPart['kind'] | ''
          e.currentTarget.value = ''
          if (kind) ac.add(kind)
        }}
        ><option value="">a part</option>{#each kinds as [kind, word] (kind)}<option value={kind}>{word}</option
          >{/each}</select
      ></label
    >
    <label class="inline-flex items-center gap-1"
      ><span class="caption">legs</span><select
        class="select select-xs"
        value={drawing.legs}
        onchange={(e) => ac.put({ legs: e.currentTarget.value as 'single' | 'split' })}
        ><option value="single">one, {num(session.design!.ac.volts)} V</option><option value="split"
          >two, {num(session.design!.ac.volts)} and {num(2 * session.design!.ac.volts)} V</option
        ></select
      ></label
    >
    <span class="caption"
      >Thick is live: <span class="mains"></span> from the mains, <span class="inv"></span> from the inverter. Press a switch
      twice to turn it.</span
    >
  </div>
  {#if !board && ac.away}<p class="note mt-3" role="status">{ac.away}</p>{/if}
  {#if board}
    {#if board.switches.length > 0 && board.states.length > 0}
      <div class="states" role="group" aria-label="Positions">
        {#each board.states.slice(0, 24) as s, i (i)}
          <button
            type="button"
            aria-pressed={ac.state === i}
            data-state={s.positions.join('-')}
            onclick={() => (ac.state = i)}><Mark kind={graver(s.troubles)} size={9} /> {s.words}</button
          >
        {/each}
        {#if board.states.length > 24}<span class="note"
            >{board.count} positions in all: turn the switches on the drawing</span
          >{/if}
      </div>
    {/if}
    {#if board.refused}<p class="note">{board.refused}.</p>{/if}
    <AcBoardDrawing />
    {#if here}
      <p class="says" data-testid="ac-says">
        {#each here.feeds.filter((f) => f.circuits.length > 0 || f.available !== null) as f (f.source + (f.leg ?? ''))}
          <span
            ><b>{of(f.source)}{f.leg ? `, leg ${f.leg}` : ''}</b>
            {f.circuits.length === 0
              ? 'feeds no circuit'
              : `feeds ${f.circuits.length} ${f.circuits.length === 1 ? 'circuit' : 'circuits'}, ${num(f.loadsW)} W if all are on`}{#if f.available !== null && f.remaining !== null};
              {num(f.available)}
              {unit(f.source)} for hours, {f.remaining >= 0
                ? `${num(f.remaining)} ${unit(f.source)} left${chargers(f)}`
                : `${num(-f.remaining)} ${unit(f.source)} too much without any charger`}{#if f.chargerFitsA !== null}: {say(
                  f.chargerFitsA,
                  'A',
                )} of {say(f.chargerA!, 'A')} fit{/if}{/if}.</span
          >
        {/each}
        {#if here.dark.length > 0}<span><b>Dark:</b> {here.dark.map(of).join(', ')}.</span>{/if}
      </p>
    {/if}
    {#if ac.part}<AcPartFields part={ac.part} />{/if}
    <AsTable
      heads={['position', 'live', 'dark', 'wrong in it']}
      rows={[]}
      plain={board.states.map((s) => [
        s.words,
        s.feeds
          .filter((f) => f.circuits.length > 0)
          .map((f) => `${of(f.source)}: ${f.circuits.map(of).join(', ')}`)
          .join('; ') || 'nothing',
        s.dark.map(of).join(', ') || 'nothing',
        s.troubles.map((t) => board.troubles[t].title).join('; ') || 'nothing',
      ])}
    />
  {/if}
{/if}
<p class="caution">
  Mains voltage kills. Where neutral and earth are bonded (once, at the supply that is live), residual-current
  protection in every position, transfer and earthing belong to a licensed electrician and to the local rules; the bond
  and the curves of breakers are not in this trial.
</p>

<style>
  .empty {
    max-width: 620px;
    margin-top: 14px;
    font-size: 14px;
  }
  .bar {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 14px;
    align-items: center;
    margin-top: 4px;
  }
  .mains,
  .inv {
    display: inline-block;
    width: 22px;
    height: 3px;
    vertical-align: middle;
    background: var(--copper);
  }
  .inv {
    background: var(--ink);
  }
  .states {
    display: flex;
    flex-wrap: wrap;
    margin: 6px 0;
  }
  .states button {
    border: 1px solid var(--hair);
    margin: 0 -1px -1px 0;
    padding: 2px 10px;
    min-height: 28px;
    font-size: 12.5px;
    cursor: pointer;
  }
  .states [aria-pressed='true'] {
    outline: 1px solid var(--copper);
    border-color: var(--copper);
    background: var(--tint);
    font-weight: 700;
    z-index: 1;
  }
  .says {
    display: flex;
    flex-direction: column;
    gap: 2px;
    font-size: 13px;
    margin-top: 4px;
  }
  @media (max-width: 939px) {
    .states button,
    .bar select {
      min-height: 44px;
    }
  }
</style>
