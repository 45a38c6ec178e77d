/**
 * Whether a message may lead to this address. The renderer asks again although the schema asked before: what
 * reaches a page is never trusted to have been checked elsewhere.
 */
export function isSafeAddress(address: string): boolean {
  return /^(https?:\/\/|mailto:|tel:|\/(?![\\/])|#)\S*$/i.test(address);
}
