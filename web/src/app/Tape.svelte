<script lang="ts">
  import { onMount } from 'svelte'
  import { api } from '../api/client'
  import type { Equation } from '../api/client'
  import EquationLine from '../ui/EquationLine.svelte'
  import Badger from './Badger.svelte'
  import { session } from './session.svelte'

  /** Every equation of the design in the order of the work, to be read through or printed. */
  let equations = $state.raw<Equation[] | null>(null)
  let trouble = $state(false)
  onMount(async () => {
    try {
      equations = (await api.evaluate(session.worked!, 'all')).working
    } catch {
      trouble = true
    }
  })

  const names: Record<string, string> = {
    loads: 'Loads',
    voltage: 'Voltage',
    inverter: 'Inverter',
    energy: 'Energy',
    currents: 'Currents',
    bank: 'Bank',
    mainRun: 'Main run',
    network: 'Current in the bank',
    protection: 'Fuse and short circuit',
    bus: 'The bus',
    circuits: 'The other runs',
    stringFuses: 'String fuses',
    bonding: 'Bonding',
    devices: 'Devices on DC',
    needs: 'What the voltage brings',
    envelope: 'What gives way first',
    stands: 'Where it stands',
    charging: 'Charging',
    chain: 'The chain of limits',
  }
  const chapters = $derived.by(() => {
    const list: { key: string; name: string; equations: Equation[] }[] = []
    for (const equation of equations ?? []) {
      const [, whose, index, stage] = equation.pointer.split('/')
      const several = whose === 'site'
      const bank = !several && session.design!.banks.length > 1 ? `${session.design!.banks[Number(index)].name}: ` : ''
      const key = several ? whose : `${index}/${stage}`
      const chapter = list.find((c) => c.key === key)
      if (chapter) chapter.equations.push(equation)
      else
        list.push({ key, name: several ? 'Joins and one plug' : bank + (names[stage] ?? stage), equations: [equation] })
    }
    return list
  })
</script>

<main class="tape">
  <header class="flex items-center gap-3">
    <Badger size={24} />
    <h1 class="headline">How {session.evaluation!.name} was worked out</h1>
    <span class="ml-auto flex gap-4 no-print">
      <button type="button" class="btn btn-outline btn-sm" onclick={() => print()}>Print</button>
      <a class="link-copper self-center" href="#/d/{session.id}/{session.station}">back to the design</a>
    </span>
  </header>
  <p class="note">
    Each number is underlined by its origin:
    <span class="from-you">you</span>, <span class="from-data-sheet">data sheet</span>,
    <span class="from-house-rule">house rule</span>, <span class="from-table">table of typical values</span>,
    <span class="from-assumed">assumed</span>, <span class="from-worked-out">worked out above</span>. Tables are typical
    of common practice: local rules and makers’ instructions come first. A plan is not an inspection.
  </p>
  {#if trouble}<p role="alert">The server does not answer.</p>{/if}
  {#each chapters as chapter (chapter.key)}
    <section>
      <h2>{chapter.name}</h2>
      {#each chapter.equations as equation (equation.pointer)}
        <div class="entry">
          <span class="caption">{equation.label}, method {equation.method}</span>
          <EquationLine {equation} deeper={false} />
        </div>
      {/each}
    </section>
  {/each}
</main>

<style>
  .tape {
    max-width: 1000px;
    margin: 16px auto;
    padding: 16px 28px 40px;
    background: var(--sheet);
    border: 1px solid var(--ink-3);
  }
  h2 {
    font-size: 15px;
    font-weight: 700;
    margin-top: 18px;
    border-top: 1px solid var(--ink);
    padding-top: 6px;
  }
  .entry {
    padding: 6px 0;
    border-bottom: 1px solid var(--grid);
    break-inside: avoid;
  }
  @media print {
    .tape {
      border: 0;
      padding: 0;
    }
    .no-print {
      display: none;
    }
  }
</style>
