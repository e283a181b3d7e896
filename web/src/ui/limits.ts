import schema from '../../../docs/format/design.schema.json'

interface Node {
  type?: string | string[]
  minimum?: number
  exclusiveMinimum?: number
  maximum?: number
  maxLength?: number
  minLength?: number
  properties?: Record<string, Node>
  items?: Node
  oneOf?: Node[]
  $ref?: string
}

const root = schema as unknown as Node & { definitions: Record<string, Node> }

function resolve(node: Node): Node {
  if (node.oneOf) return resolve(node.oneOf.find((n) => n.$ref) ?? node.oneOf[0])
  return node.$ref ? resolve(root.definitions[node.$ref.split('/').at(-1)!]) : node
}

/** What the document's own schema says of the field at a JSON pointer. */
export function limitsAt(pointer: string): Node {
  let here: Node = root
  for (const segment of pointer.split('/').slice(1)) {
    here = resolve(here)
    here = here.items && /^(\d+|-)$/.test(segment) ? here.items : (here.properties?.[segment] ?? {})
  }
  return resolve(here)
}

/** Why a number is refused at this place, in the words of the schema; null when it is accepted. */
export function refusal(pointer: string, value: number, write: (bound: number) => string): string | null {
  const limits = limitsAt(pointer)
  if (limits.type?.includes('integer') && !Number.isInteger(value)) return 'must be a whole number'
  if (limits.minimum !== undefined && value < limits.minimum) return `must be ${write(limits.minimum)} or more`
  if (limits.maximum !== undefined && value > limits.maximum) return `must be ${write(limits.maximum)} or less`
  return null
}
