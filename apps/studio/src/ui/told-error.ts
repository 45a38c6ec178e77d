/** What went wrong, in words for whoever it happened to. */
export class ToldError extends Error {
  constructor(
    readonly title: string,
    detail: string,
  ) {
    super(detail);
  }
}

/** The one of these with this id. @throws {ToldError} Where it was removed while it lay open here. */
export function stillThere<One extends { readonly id: string }>(
  among: readonly One[],
  id: string,
  what: string,
): One {
  const found = among.find((one) => one.id === id);
  if (!found)
    throw new ToldError(
      `The ${what} is gone`,
      'Somebody has removed it. What you made is kept here meanwhile.',
    );
  return found;
}
