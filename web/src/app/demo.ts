import { api } from '../api/client'
import type { DesignCard } from '../api/client'
import { route } from './route.svelte'

/** Opens the demo: the first one that is on the shelf, or a new copy of it. */
export async function openDemo(cards: DesignCard[]) {
  const id = cards.find((c) => c.demo)?.id ?? (await api.begin('demo')).id
  route.toStation(id, 'bank')
}
