const hex = (bytes: Uint8Array) => Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
const randomHex = (length: number) => hex(crypto.getRandomValues(new Uint8Array(length)));

/** 128 random bits, the visitor's first-party id. */
export const visitorId = (): string => randomHex(16);

/** A time-ordered id. Source: RFC 9562, UUID version 7; of its variant's digit two bits are left nought. */
export const timeOrderedId = (): string => {
  const time = Date.now().toString(16).padStart(12, '0');
  return `${time}7${randomHex(9)}`.replace(/(.{8})(.{4})(.{4})(.{3})/, '$1-$2-$3-8$4-');
};
