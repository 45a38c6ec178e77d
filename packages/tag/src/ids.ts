const hex = (bytes: Uint8Array) => Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
const randomHex = (length: number) => hex(crypto.getRandomValues(new Uint8Array(length)));

/** 128 random bits, the visitor's first-party id. */
export const visitorId = (): string => randomHex(16);

/** A time-ordered id. Source: RFC 9562, UUID version 7. */
export const timeOrderedId = (): string =>
  `${Date.now().toString(16).padStart(12, '0')}7${randomHex(10)}`.replace(
    /(.{8})(.{4})(.{4})(.)(.{3})(.{12}).*/,
    (_all, high, middle, low, variant, rest, node) =>
      `${high}-${middle}-${low}-${'89ab'[Number.parseInt(variant, 16) & 3]}${rest}-${node}`,
  );
