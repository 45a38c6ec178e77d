import { on } from '../observe/on.ts';

/** Resolves once the page is not merely prerendered: nothing counts before a person can see it. */
export const whenActive = (): Promise<unknown> | false =>
  !!(document as { prerendering?: boolean }).prerendering &&
  new Promise((resolve) => on(document, ['prerenderingchange'], resolve));
