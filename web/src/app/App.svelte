<script lang="ts">
  import { untrack } from 'svelte'
  import { api, Refused } from '../api/client'
  import { memory } from './memory.svelte'
  import { route } from './route.svelte'
  import DeviceKey from './DeviceKey.svelte'
  import GuessDialog from './GuessDialog.svelte'
  import { session } from './session.svelte'
  import Later from './Later.svelte'
  import { lookUp } from './lookUp'
  import Workbench from './Workbench.svelte'

  // Each place is a piece of its own.
  const places = {
    shelf: () => import('./Shelf.svelte'),
    fresh: () => import('./NewDesign.svelte'),
    tape: () => import('./Tape.svelte'),
    summary: () => import('../summary/Summary.svelte'),
    findings: () => import('../findings/AllFindings.svelte'),
    builds: () => import('../builds/Builds.svelte'),
    rehearse: () => import('../rehearse/Rehearse.svelte'),
    sheets: () => import('../sheets/Sheets.svelte'),
    bringUp: () => import('../bringup/BringUp.svelte'),
    log: () => import('../log/Log.svelte'),
    rules: () => import('../rules/Rules.svelte'),
    practice: () => import('../practice/Practice.svelte'),
  }

  let trouble = $state<string | null>(null)

  $effect(() => lookUp())

  // A device that is not known yet is asked for its key.
  const fail = (sentence: string) => (e: unknown) => {
    if (e instanceof Refused && e.status === 401) route.toKey()
    else trouble = e instanceof Refused && e.status === 422 ? e.message : sentence
  }

  // Without an address the design last worked on opens, at first the newest on the shelf.
  async function settle() {
    const last = memory.read('inky-badger.last')
    const cards = await api.designs()
    const id = cards.find((c) => c.id === last)?.id ?? cards[0]?.id
    route.go(id ? `#/d/${id}/bank` : '#/shelf')
  }

  $effect(() => {
    const id = route.design
    trouble = null
    if (id && id !== session.id)
      session.open(id).catch(fail('This design cannot be opened. It may have been taken off the shelf.'))
    else if (!id && !route.shelf && !route.fresh && route.key === null)
      settle().catch(fail('The server does not answer.'))
  })
  $effect(() => {
    const station = route.station
    if (
      !route.tape &&
      !route.summary &&
      !route.builds &&
      !route.rehearse &&
      !route.sheets &&
      !route.bringUp &&
      !route.log &&
      !route.rules &&
      !route.practice &&
      !route.findings
    )
      untrack(() => session.arrive(station))
  })
</script>

{#if route.key !== null}
  <DeviceKey />
{:else if trouble}
  <main class="p-8">
    <h1 class="headline">{trouble}</h1>
    <p class="mt-3"><a class="link-copper" href="#/shelf">To the shelf</a></p>
  </main>
{:else if route.shelf}
  <Later load={places.shelf} />
{:else if route.fresh}
  <Later load={places.fresh} />
{:else if session.design && session.evaluation && session.reference}
  <GuessDialog />
  {#if route.tape}<Later load={places.tape} />{:else if route.summary}<Later
      load={places.summary}
    />{:else if route.findings}<Later load={places.findings} />{:else if route.builds}<Later
      load={places.builds}
    />{:else if route.rehearse}<Later load={places.rehearse} />{:else if route.sheets}<Later
      load={places.sheets}
    />{:else if route.bringUp}<Later load={places.bringUp} />{:else if route.log}<Later
      load={places.log}
    />{:else if route.rules}<Later load={places.rules} />{:else if route.practice}<Later
      load={places.practice}
    />{:else}<Workbench />{/if}
{:else}
  <main class="p-8 caption" aria-busy="true">Opening the design…</main>
{/if}
