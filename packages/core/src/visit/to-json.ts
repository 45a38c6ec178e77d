/**
 * JSON of a value as it is, whatever a page has put on the prototypes of the built-ins: old libraries give arrays and
 * texts a `toJSON` of their own. The replacer is called after it and takes the value itself (ECMA-262, 25.5.2.2).
 */
export const toJson = (value: unknown): string =>
  JSON.stringify(value, function (this: Record<string, unknown>, key) {
    return this[key];
  });
