const hex = (bytes: Uint8Array) => Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
const randomHex = (length: number) => hex(crypto.getRandomValues(new Uint8Array(length)));

/** 128 random bits, the visitor's first-party id. */
export const visitorId = (): string => randomHex(16);

/** A time-ordered id. Source: RFC 9562, UUID version 7. */
export function timeOrderedId(): string {
  const time = Date.now().toString(16).padStart(12, '0');
  const random = randomHex(10);
  const variant = ((Number.parseInt(random[3] as string, 16) & 3) | 8).toString(16);
  return `${time.slice(0, 8)}-${time.slice(8)}-7${random.slice(0, 3)}-${variant}${random.slice(4, 7)}-${random.slice(7, 19)}`;
}
