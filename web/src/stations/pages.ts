import { SvelteMap } from 'svelte/reactivity'
import type { Component } from 'svelte'
import type { Station } from '../api/client'
import { stations } from '.'

type Module = { default: Component }

/** A station's page, and what stands above and below its findings. */
export interface Parts {
  Page: Component
  Above?: Component
  Below?: Component
}

// Each station is a piece of its own, fetched when it is first needed.
const pages = import.meta.glob<Module>('./*/Page.svelte')
const above = import.meta.glob<Module>('./*/NotesAbove.svelte')
const below = import.meta.glob<Module>('./*/NotesBelow.svelte')

const AGAIN_MS = 2000

const here = new SvelteMap<Station, Parts>()
const asked = new Map<Station, Promise<void>>()

function fetchPage(id: Station): Promise<void> {
  const known = asked.get(id)
  if (known) return known
  const one = (from: Record<string, (() => Promise<Module>) | undefined>, name: string) =>
    from[`./${id}/${name}.svelte`]?.().then((module) => module.default)
  const coming = Promise.all([one(pages, 'Page'), one(above, 'NotesAbove'), one(below, 'NotesBelow')]).then(
    ([Page, Above, Below]) => {
      here.set(id, { Page: Page!, Above, Below })
    },
    () => {
      // Away for the moment: it is asked for again in a while.
      asked.delete(id)
      setTimeout(() => void fetchPage(id), AGAIN_MS)
    },
  )
  asked.set(id, coming)
  return coming
}

/** The station's parts as soon as they are here; asking fetches them. */
export function pageOf(id: Station): Parts | undefined {
  const parts = here.get(id)
  if (!parts) void fetchPage(id)
  return parts
}

/** All stations; tells whether all of them are here. */
export async function fetchOthers(): Promise<boolean> {
  for (const s of stations) await fetchPage(s.id)
  return stations.every((s) => here.has(s.id))
}
