<script lang="ts">
  import type { Change } from '../api/client'
  import { session } from '../app/session.svelte'
  import { limitsAt, refusal } from './limits'
  import { at } from './pointer'
  import { answer, fieldText, parse, say } from './quantity'
  import type { Kind } from './quantity'
  import { powerOffers } from './slips'
  import TypedField from './TypedField.svelte'

  /** A quantity of the document, held to the limits of its schema. */
  interface Props {
    path: string
    kind: Kind
    label: string
    /** Shown while the choice is null; an emptied field goes back to it. */
    advised?: number | null
    /** What an empty field says where there is no advice. */
    placeholder?: string
    width?: string
    hideLabel?: boolean
    /** The path is of the whole document, not of the bank in hand. */
    whole?: boolean
    /** Changes that must come first, such as adding what the path leads into. */
    ensure?: () => Change[]
  }
  let {
    path,
    kind,
    label,
    advised = undefined,
    placeholder: empty,
    width,
    hideLabel,
    whole = false,
    ensure = () => [],
  }: Props = $props()

  const full = $derived(whole ? path : session.base + path)
  const value = $derived(at(session.design, full) as number | null | undefined)
  const optional = $derived(advised !== undefined || limitsAt(full).type?.includes('null') === true)
  const write = (v: number) => fieldText(v, kind, session.units)
  const text = $derived(value === null || value === undefined ? '' : write(value))
  const placeholder = $derived(
    advised !== undefined && advised !== null ? write(advised) : (empty ?? (optional ? 'as advised' : '')),
  )

  const steps: Partial<Record<Kind, number>> = { share: 0.01, length: 0.1, power: 10 }

  const put = (next: number | null) => session.edit([...ensure(), { path: full, value: next }])

  function read(typed: string) {
    if (typed.trim() === '') {
      if (!optional) return { reason: 'a number is wanted' }
      put(null)
      return {}
    }
    const refused = (v: number) => refusal(full, v, (b) => (kind === 'share' ? say(b, 'fraction') : write(b)))
    const parsed = parse(typed, kind, session.units, (v) => refused(v) === null)
    if ('value' in parsed) {
      const reason = refused(parsed.value)
      if (reason) return { reason }
      const others = kind === 'power' && parsed.other === undefined ? powerOffers(typed) : []
      if (others.length > 0) {
        put(parsed.value)
        return {
          understood: write(parsed.value),
          offers: others.map((o) => ({ text: o.text, take: () => put(o.value) })),
        }
      }
    }
    return answer(parsed, write, put)
  }

  function nudge(by: number): string | null {
    const now = value ?? advised
    return typeof now === 'number' ? write(Number((now + by * (steps[kind] ?? 1)).toFixed(6))) : null
  }
</script>

<TypedField
  {label}
  {text}
  {placeholder}
  {read}
  {nudge}
  {width}
  {hideLabel}
  {path}
  faultsAt={[full]}
  snapshot={() => [{ path: full, value: value ?? null }]}
/>
