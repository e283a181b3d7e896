/** A key nobody else has. By a device that reaches the server without TLS, `randomUUID` is not there. */
export function newKey(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(9)), (n) => n.toString(16).padStart(2, '0')).join('')
}
