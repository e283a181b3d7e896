<script lang="ts">
  import { tick } from 'svelte'
  import type { Change } from '../api/client'
  import { session } from '../app/session.svelte'
  import ChoiceField from '../ui/ChoiceField.svelte'
  import Dialog from '../ui/Dialog.svelte'
  import QuantityField from '../ui/QuantityField.svelte'
  import { say } from '../ui/quantity'
  import TypedField from '../ui/TypedField.svelte'
  import BankSign from './BankSign.svelte'
  import { copyOf, moved, nameOf, newBank, newJoin, volts, without } from './banks'
  import JoinFields from './JoinFields.svelte'
  import MoveThings from './MoveThings.svelte'
  import { banksTable } from './table.svelte'

  /** The banks of the design: made, named, copied, ordered, taken out; what joins them; what hangs on which. */
  const MOST = 8
  const banks = $derived(session.design!.banks)
  const joins = $derived(session.design!.joins)
  const site = $derived(session.evaluation?.site ?? null)
  let chosen = $state<string | null>(null)

  /** The bank in hand stays in hand, whatever its place. */
  async function change(changes: Change[], inHand: string) {
    session.edit(changes, true)
    await session.evaluate()
    session.toBank(
      Math.max(
        0,
        session.design!.banks.findIndex((b) => b.id === inHand),
      ),
    )
  }

  function add() {
    const bank = newBank(session.design!, chosen === null ? null : Number(chosen))
    void change([{ path: '/banks/-', value: bank }], bank.id)
  }

  function copy(index: number) {
    const bank = copyOf(session.design!, index)
    void change([{ path: '/banks/-', value: bank }], bank.id)
  }

  function remove(index: number) {
    const inHand = session.bank!.id
    const next = banks[index].id === inHand ? banks[index === 0 ? 1 : index - 1].id : inHand
    // Nothing of the page may look at a bank that is gone.
    session.toBank(0)
    void change(without(session.design!, index), next)
  }

  async function join() {
    const [from, to] = [session.bank!, banks.find((b) => b.id !== session.bank!.id)!]
    session.edit({ path: '/joins/-', value: newJoin(from.id, to.id) }, true)
    await tick()
  }
</script>

<Dialog open={banksTable.open} title="Banks and what joins them" wide onclose={() => (banksTable.open = false)}>
  <section>
    {#each banks as bank, i (bank.id)}
      {@const e = session.evaluation?.banks.find((b) => b.id === bank.id)}
      <div class="bank" data-bank={bank.id}>
        <span class="sign"><BankSign index={i} height={30} most={54} /></span>
        <TypedField
          label="name of bank {i + 1}"
          hideLabel
          text={bank.name}
          words
          read={(typed) => {
            session.edit({ path: `/banks/${i}/name`, value: typed.slice(0, 80) })
            return {}
          }}
          width="190px"
          path="/banks/{i}/name"
          faultsAt={[`/banks/${i}/name`]}
          snapshot={() => [{ path: `/banks/${i}/name`, value: bank.name }]}
        />
        <ChoiceField
          label="{nameOf(bank)}, system voltage"
          hideLabel
          value={bank.systemV === null ? null : String(bank.systemV)}
          advised={e?.voltage ? say(e.voltage.systemV, 'class') : ''}
          options={[12, 16, 24, 32, 36, 48].map((v) => ({ value: String(v), text: `${v} V` }))}
          width="124px"
          onpick={(v) => session.edit({ path: `/banks/${i}/systemV`, value: v === null ? null : Number(v) }, true)}
        />
        <span class="fig holds">{e?.bank ? say(e.bank.holds.ratedWh, 'Wh') : 'no unit yet'}</span>
        <span class="acts">
          <button
            type="button"
            class="btn btn-ghost btn-xs btn-square"
            aria-label="{nameOf(bank)} one place up"
            disabled={i === 0}
            onclick={() => change(moved(session.design!, i, -1), session.bank!.id)}>↑</button
          >
          <button
            type="button"
            class="btn btn-ghost btn-xs btn-square"
            aria-label="{nameOf(bank)} one place down"
            disabled={i === banks.length - 1}
            onclick={() => change(moved(session.design!, i, 1), session.bank!.id)}>↓</button
          >
          <button type="button" class="btn btn-outline btn-xs" disabled={banks.length >= MOST} onclick={() => copy(i)}
            >copy</button
          >
          <button
            type="button"
            class="btn btn-outline btn-xs"
            disabled={banks.length === 1}
            title="With its loads and sources; undo brings it back"
            onclick={() => remove(i)}>take out</button
          >
        </span>
      </div>
    {/each}
    <div class="bank add">
      <ChoiceField
        label="another bank of"
        value={chosen}
        advised=""
        options={volts.map((v) => ({ value: String(v), text: `${v} V` }))}
        width="124px"
        onpick={(v) => (chosen = v)}
      />
      <button type="button" class="btn btn-primary btn-sm" disabled={banks.length >= MOST} onclick={add}
        >Add a bank</button
      >
      {#if banks.length >= MOST}<span class="caption">eight are the most</span>{/if}
    </div>
  </section>
  {#if banks.length > 1}
    <section>
      <h3>Joins</h3>
      {#each joins as j, i (j.id || i)}
        <JoinFields index={i} open={banksTable.join === (j.id || String(i))} />
      {:else}
        <p class="caption">Nothing joins them: each bank is for itself.</p>
      {/each}
      <button type="button" class="btn btn-outline btn-sm mt-1" onclick={join}>Add a join</button>
    </section>
    <section>
      <h3>What hangs on which</h3>
      <MoveThings />
    </section>
    <section class="plug">
      <h3>One plug</h3>
      <QuantityField
        label="hours of a night at it"
        kind="hours"
        path="/place/nightH"
        whole
        advised={site?.plug?.nightH ?? null}
        width="80px"
      />
      <p data-testid="plug-words">
        {site?.plug?.words ?? 'No bank has a mains charger: add a plug at Charging.'}
      </p>
    </section>
  {/if}
</Dialog>

<style>
  section {
    margin-top: 10px;
  }
  h3 {
    font-weight: 700;
    border-top: 1px solid var(--hair);
    padding-top: 6px;
  }
  .bank {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 6px 12px;
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
  }
  .add {
    align-items: flex-end;
    border: 0;
  }
  .sign {
    width: 60px;
  }
  .holds {
    min-width: 92px;
  }
  .acts {
    display: flex;
    gap: 4px;
    margin-left: auto;
  }
  .plug p {
    margin-top: 4px;
  }
  @media (max-width: 939px) {
    .bank :global(.btn),
    .bank :global(select),
    .bank :global(input) {
      min-height: 44px;
      min-width: 44px;
    }
    .acts {
      margin-left: 0;
    }
  }
</style>
