import type { Component } from 'svelte'
import type { Station } from '../api/client'

type Module = { default: Component }

const pages = import.meta.glob<Module>('./*/Page.svelte', { eager: true })
const above = import.meta.glob<Module>('./*/NotesAbove.svelte', { eager: true })
const below = import.meta.glob<Module>('./*/NotesBelow.svelte', { eager: true })

/** A station's page, and what stands above and below its findings. */
export function pageOf(id: Station): { Page: Component; Above?: Component; Below?: Component } {
  return {
    Page: pages[`./${id}/Page.svelte`].default,
    Above: above[`./${id}/NotesAbove.svelte`]?.default,
    Below: below[`./${id}/NotesBelow.svelte`]?.default,
  }
}
