/** Resolves once the page is not merely prerendered: nothing counts before a person can see it. */
export function whenActive(): Promise<void> {
  if (!(document as { prerendering?: boolean }).prerendering) return Promise.resolve();
  return new Promise((resolve) =>
    document.addEventListener('prerenderingchange', () => resolve(), { once: true }),
  );
}
