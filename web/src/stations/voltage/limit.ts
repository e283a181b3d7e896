import { session } from '../../app/session.svelte'

export const RULE = 'voltage-current-limit'

/** The design's own value of the most current in the main cable [A]. */
export function putLimit(amps: number) {
  session.edit({ path: '/houseRules/own', value: { ...session.design!.houseRules.own, [RULE]: amps } })
}
