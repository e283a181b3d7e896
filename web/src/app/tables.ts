import type { Reference } from '../api/client'
import { diameterMm } from '../drawing/geometry'
import { session } from './session.svelte'

/** The tables a design is worked out by: the typical ones, and what it has brought along. */

type Practice = Reference['practices'][number]
type FuseClass = Reference['fuseClasses'][number]

/** Area of a size by any table [mm²]; null: none has it. */
export function areaOf(size: string): number | null {
  for (const p of session.reference!.practices) {
    const found = p.sizes.find((s) => s.size === size)
    if (found) return found.areaMm2
  }
  return session.design?.tables.conductors.find((c) => c.size === size)?.areaMm2 ?? null
}

export function practices(): Practice[] {
  const own = session.design?.tables.practices ?? []
  return [
    ...session.reference!.practices,
    ...own.map((p) => ({
      id: p.id,
      series: p.rows[0]?.size.includes('AWG') ? 'awg' : 'metric',
      insulationC: p.insulationC,
      referenceC: p.referenceC,
      sizes: p.rows
        .map((r) => ({ size: r.size, areaMm2: areaOf(r.size) ?? 0, ampacityA: r.ampacityA }))
        .map((r) => ({ ...r, diameterMm: diameterMm(r.areaMm2) }))
        .sort((a, b) => a.areaMm2 - b.areaMm2),
    })),
  ]
}

export function fuseClasses(): FuseClass[] {
  return [
    ...session.reference!.fuseClasses,
    ...(session.design?.tables.fuses ?? []).map((f) => ({
      id: f.id,
      label: f.label,
      maxDcV: f.maxDcV,
      interruptA: f.interruptA,
      ratingsA: f.ratingsA,
    })),
  ]
}

/** A practice in words. */
export function practiceName(id: string): string {
  return session.design?.tables.practices.find((p) => p.id === id)?.label ?? `${id.replace(/-/g, ' ')} °C`
}

/** Every size of any table, the finest first. */
export function sizes(): string[] {
  const all = practices().flatMap((p) => p.sizes.map((s) => s.size))
  const own = session.design?.tables.conductors.map((c) => c.size) ?? []
  return [...new Set([...all, ...own])].sort((a, b) => (areaOf(a) ?? 0) - (areaOf(b) ?? 0))
}
