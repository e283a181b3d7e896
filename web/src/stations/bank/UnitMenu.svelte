<script lang="ts">
  import X from '@lucide/svelte/icons/x'
  import { session } from '../../app/session.svelte'
  import ChoiceField from '../../ui/ChoiceField.svelte'
  import { limitsAt, refusal } from '../../ui/limits'
  import { answer as answered, fieldText, parse, stringName } from '../../ui/quantity'
  import TypedField from '../../ui/TypedField.svelte'
  import { bench } from './bench.svelte'
  import UnitStock from './UnitStock.svelte'
  import { blank, indexOf, reached, saying, unitFields } from './positions'
  import type { Reach, Said } from './positions'

  /** What is said of the unit that was pressed: another one in its place, its test, its age; for it alone, its string or all. */
  let reach = $state<Reach>('unit')
  let stock = $state(false)
  const at = $derived(bench.unit)
  const bank = $derived(session.bank!)
  const result = $derived(session.result?.bank ?? null)
  const usual = $derived(result?.unit ?? null)
  const here = $derived(at ? (bank.positions[indexOf(bank.positions, at)] ?? blank(at)) : null)
  const name = $derived(at && result ? `${stringName(at.string)}${result.layout.series > 1 ? at.unit : ''}` : '')
  const options = $derived.by(() => {
    if (!usual) return []
    const made = session.reference!.units.filter((u) => u.chemistry === usual.chemistry && u.cells === usual.cells)
    const own = here?.item
    const listed = made.map((u) => ({ value: u.key, text: u.name }))
    return own && !made.some((u) => u.key === own.key) ? [{ value: own.key, text: own.name }, ...listed] : listed
  })
  function say(said: Partial<Said>, commit = false) {
    if (!at || !result) return
    const places = reached(at, reach, result.layout.series, result.layout.parallel)
    session.edit({ path: '~/positions', value: saying(bank.positions, places, said) }, commit)
  }

  function read(field: (typeof unitFields)[number]) {
    return (typed: string) => {
      if (typed.trim() === '') {
        say({ [field.key]: null })
        return {}
      }
      // The limits are those of any place: the first stands for all.
      const refused = (v: number) => refusal(`${session.base}/positions/0/${field.key}`, v, String)
      const parsed = parse(typed, field.kind, 'metric', (v) => refused(v) === null)
      if ('value' in parsed && refused(parsed.value)) return { reason: refused(parsed.value)! }
      return answered(
        parsed,
        (v) => fieldText(v, field.kind, 'metric'),
        (v) => say({ [field.key]: v }),
      )
    }
  }
  const known = $derived(limitsAt(`${session.base}/positions/0/soc`).maximum !== undefined)
</script>

{#if at && here && usual && known}
  <div class="menu" data-testid="unit-menu" role="group" aria-label="unit {name}">
    <b class="fig name">{name}</b>
    <ChoiceField
      label="what stands there"
      value={here.item?.key ?? null}
      {options}
      none={usual.name}
      width="178px"
      onpick={(key) =>
        say({ item: key === null ? null : (session.reference!.units.find((u) => u.key === key) ?? here.item) }, true)}
    />
    <button type="button" class="btn btn-outline btn-xs" onclick={() => (stock = true)}>Stock</button>
    {#each unitFields as f (f.key)}
      <TypedField
        label={f.label}
        text={here[f.key] === null ? '' : fieldText(here[f.key] as number, f.kind, 'metric')}
        placeholder={f.empty}
        read={read(f)}
        width={f.width}
        path="/unit-menu/{f.key}"
        snapshot={() => [{ path: `${session.base}/positions`, value: bank.positions }]}
      />
    {/each}
    <ChoiceField
      label="said of"
      value={reach}
      options={[
        { value: 'unit', text: 'it alone' },
        ...((result?.layout.series ?? 1) > 1 ? [{ value: 'string', text: `string ${stringName(at.string)}` }] : []),
        ...((result?.layout.parallel ?? 1) > 1 ? [{ value: 'all', text: 'all strings' }] : []),
      ]}
      width="98px"
      onpick={(v) => (reach = (v as Reach | null) ?? 'unit')}
    />
    <button
      type="button"
      class="link-copper"
      onclick={() => (bench.out === at.string ? (bench.out = null) : bench.play(at.string))}
      >{bench.out === at.string ? 'put it back' : 'drop it out'}</button
    >
    <button type="button" class="btn btn-ghost btn-xs btn-square" aria-label="Close" onclick={() => (bench.unit = null)}
      ><X size={14} /></button
    >
  </div>
{/if}
<UnitStock bind:open={stock} onpick={(item) => say({ item }, true)} />

<style>
  .menu {
    display: flex;
    flex-wrap: wrap;
    align-items: flex-end;
    gap: 4px 8px;
    border-top: 1px solid var(--hair);
    padding-top: 4px;
  }
  .name {
    font-size: 18px;
    min-width: 28px;
  }
  .link-copper {
    min-height: 26px;
  }
  @media (max-width: 939px) {
    .link-copper {
      min-height: 44px;
    }
  }
</style>
