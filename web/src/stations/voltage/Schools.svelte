<script lang="ts">
  import { session } from '../../app/session.svelte'
  import Fig from '../../ui/Fig.svelte'
  import TypedField from '../../ui/TypedField.svelte'
  import { num, sayVolts } from '../../ui/quantity'

  /** What each school would take and why, both rules of thumb for what they are, and the reason that is kept with the design. */
  const v = $derived(session.result?.voltage)
  const c = $derived(session.result?.currents)
  const b = $derived(session.result?.bank)
  const names: Record<string, string> = {
    'by-current': 'By current',
    'by-watts': 'By watts',
    'mobile-12': 'By 12 V fixtures',
  }

  const decisions = $derived(session.design!.decisions)
  const VOLTS = /^\d+ V$/
  const index = $derived(decisions.findIndex((d) => VOLTS.test(d.what)))
  const decided = $derived(index >= 0 ? decisions[index] : null)

  function read(typed: string) {
    const why = typed.trim()
    if (why.length > 400) return { reason: '400 characters at most' }
    const rest = decisions.filter((_, i) => i !== index)
    const when = new Date().toISOString().slice(0, 10)
    session.edit({
      path: '/decisions',
      value: why ? [...rest, { what: `${v!.systemV} V`, why, when }] : rest,
    })
    return {}
  }
  const off = (fraction: number) => `${num(Math.abs(fraction) * 100)} % ${fraction >= 0 ? 'too much' : 'too little'}`
</script>

{#if v && c}
  <section class="schools" aria-labelledby="schools-title">
    <h2 id="schools-title" class="caption">What the schools say</h2>
    {#each v.advice.schools as s (s.id)}
      <p class="school">
        <b class="fig">{s.volts} V</b>
        <span
          ><b>{names[s.id]}</b>{s.id === v.advice.school ? ', the house rule here' : ''}:
          <span class="note">{s.sentence}.</span>
        </span>
      </p>
    {/each}
    <TypedField
      label="why {v.systemV} V, for whoever comes after"
      words
      text={decided?.why ?? ''}
      placeholder="not written down"
      width="100%"
      path="/decisions"
      {read}
      snapshot={() => [{ path: '/decisions', value: decisions }]}
    />
    {#if decided}<p class="caption">
        {decided.what === `${v.systemV} V` ? 'decided' : `decided for ${decided.what}`}{decided.when
          ? `, ${decided.when}`
          : ''}
      </p>{/if}
    {#if c.ruleOfThumbA !== null && c.ruleOfThumbOff !== null}
      <h2 class="caption mt-2">“Ten to one”: two rules with one name</h2>
      <p class="note">
        Watts to amperes: <span data-testid="thumb-a"
          ><Fig ptr="/currents/ruleOfThumbA" unit="A" label="rule of thumb" size={14} /></span
        >, where
        {sayVolts(v.nominalV)} really ask for <Fig
          ptr="/currents/inverterNominalA"
          unit="A"
          label="inverter’s current, nominal"
          size={14}
        />:
        {off(c.ruleOfThumbOff)}.
      </p>
      {#if c.ruleOfThumbAh !== null && b?.need.ah && b.need.thumbOff !== null}
        <p class="note">
          Watts to ampere-hours of bank: <Fig
            ptr="/currents/ruleOfThumbAh"
            unit="Ah"
            label="the other rule of thumb"
            size={14}
          />, where this demand asks for <Fig ptr="/bank/need/ah" unit="Ah" label="asked for" size={14} />:
          {off(b.need.thumbOff)}.
        </p>
      {/if}
    {/if}
  </section>
{/if}

<style>
  .schools {
    display: flex;
    flex-direction: column;
    gap: 5px;
    margin-top: 6px;
    padding-top: 8px;
    border-top: 1px solid var(--hair);
  }
  .school {
    display: grid;
    grid-template-columns: 38px minmax(0, 1fr);
    gap: 4px;
    font-size: 12.5px;
  }
  .school .fig {
    font-size: 15px;
  }
  .schools :global(.field) {
    width: 100%;
  }
</style>
