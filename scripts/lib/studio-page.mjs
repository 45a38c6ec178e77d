import { chromium } from '@playwright/test';

/** Where `npm start` serves the studio. */
export const STUDIO = `http://127.0.0.1:${process.env.VELARIUM_PORT ?? 4400}`;

/**
 * Opens the studio of `npm start` in a browser, with somebody of the demo signed in, on the Board. `watch` is given the page before
 * anything is opened in it.
 */
export async function openStudio(options, { who = 'mara@quillonfell.example', watch = () => {} } = {}) {
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell' });
  const context = await browser.newContext({ reducedMotion: 'reduce', ...options });
  const page = await context.newPage();
  watch(page);
  await page.goto(STUDIO);
  await page.getByLabel('Mail address').fill(who);
  await page.getByLabel('Password').fill('clear-skies-tonight');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Board' }).waitFor();
  return { browser, context, page };
}
