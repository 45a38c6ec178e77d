import type { Browser } from '@playwright/test';

/** Every open page, how far it has come, and what it loaded last: a blank picture says nothing of that. */
export async function pagesNow(browser: Browser): Promise<string> {
  const told = browser.contexts().flatMap((context) =>
    context.pages().map(async (page) => {
      const state = page.evaluate(() => ({
        ready: document.readyState,
        isOnline: navigator.onLine,
        seen: document.visibilityState,
        loaded: performance
          .getEntriesByType('resource')
          .slice(-12)
          .map(({ name, duration }) => `${name} ${Math.round(duration)} ms`),
      }));
      const late = new Promise((resolve) => setTimeout(resolve, 3000, 'no answer'));
      const said = await Promise.race([state, late]).catch(String);
      return `${page.url()} ${JSON.stringify(said, null, 1)}`;
    }),
  );
  return (await Promise.all(told)).join('\n');
}
