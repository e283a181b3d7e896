import { api } from '../api/client'
import type { BuildFront, DoLess, FrontPoint, GrowthPlan, StagedPlan, StageTerms } from '../api/client'
import { session } from '../app/session.svelte'
import { newest, orBefore } from '../ui/newest'
import { builds } from './bench.svelte'

/** A build over time and with less asked of it: what is asked apart, and what is tried. Nothing of it is kept. */
class Plans {
  /** Why there is no answer, where nobody gave one. */
  away = $state<string | null>(null)
  stages = $state.raw<StageTerms>({
    stringsNow: null,
    yearsLater: 3,
    priceLater: null,
    visitCost: 0,
    discountRate: 0.03,
  })
  /** What the front says. */
  says = $state<string | null>(null)
  plan = $state.raw<StagedPlan | null>(null)
  growth = $state.raw<GrowthPlan | null>(null)
  less = $state.raw<DoLess | null>(null)
  lessRunning = $state(false)
  front = $state.raw<{ of: string[]; result: BuildFront } | null>(null)
  #points: { keys: string[]; points: FrontPoint[] } = { keys: [], points: [] }

  #tell = (away: string | null) => (this.away = away)

  #askStages = newest(async () => {
    const [choice, stages, terms] = [builds.choiceOfSubject, this.stages, builds.terms]
    this.plan = await orBefore(
      session.worked,
      this.plan,
      (design) => api.stagedBuild(design, session.bankIndex, choice, stages, terms),
      this.#tell,
    )
    this.growth = await orBefore(
      session.worked,
      this.growth,
      (design) => api.growth(design, session.bankIndex, choice, terms),
      this.#tell,
    )
  })

  #askLess = newest(async () => {
    this.lessRunning = true
    this.less = await orBefore(
      session.worked,
      this.less,
      (design) => api.doLess(design, session.bankIndex, builds.terms),
      this.#tell,
    )
    this.lessRunning = false
  })

  #askFront = newest(async () => {
    const { keys, points } = this.#points
    const result =
      points.length === 0 ? null : await orBefore(points, this.front?.result ?? null, api.buildFront, this.#tell)
    this.front = result ? { of: keys, result } : null
  })

  askStages() {
    void this.#askStages()
  }
  askLess() {
    void this.#askLess()
  }
  askFront(keys: string[], points: FrontPoint[]) {
    this.#points = { keys, points }
    void this.#askFront()
  }
  try(change: Partial<StageTerms>) {
    this.stages = { ...this.stages, ...change }
    this.askStages()
  }
}

export const plans = new Plans()
