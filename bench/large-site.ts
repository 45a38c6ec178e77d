import type { Figure } from './measure.ts';
import { answersTo, bareAnswers, figure, startStudio } from './studio.ts';

const CAMPAIGNS = 500;
const PAGES = 20_000;

/** A site of many campaigns and pages: searching its Board, finding a page, and changing what a campaign covers. */
export async function measureLargeSite(): Promise<Figure[]> {
  const bench = await startStudio();
  const { page, site, studio, database } = bench;
  try {
    await database.query(
      `INSERT INTO site_page (site_id, path, title, kind, source)
       SELECT $1, '/section-' || n % 200 || '/page-' || n, 'Page number ' || n, 'article', 'file'
         FROM generate_series(1, $2::int) AS n`,
      [site.id, PAGES],
    );
    await database.query(
      `INSERT INTO campaign (workspace_id, site_id, name, state, draft)
       SELECT workspace_id, site_id, name || ' ' || n, 'draft', draft
         FROM (SELECT * FROM campaign WHERE site_id = $1 ORDER BY created_at LIMIT 1) AS first,
              generate_series(1, $2::int) AS n`,
      [site.id, CAMPAIGNS],
    );
    await page.goto(`${studio}/sites/${site.id}/board`);
    await page.getByRole('link', { name: / 500$/ }).waitFor();
    await page.getByRole('searchbox').click();
    const letters = [...'road closed after 8 seconds'];
    const searching = await answersTo(page, letters.length, (n) => page.keyboard.press(letters[n] ?? 'a'));
    await page.getByRole('searchbox').fill('');

    await page.getByRole('link', { name: / 500$/ }).click();
    await page.getByRole('button', { name: 'Reach', exact: true }).click();
    await page.getByText(/of 20,?0\d\d pages$/).waitFor();
    await page.getByRole('combobox', { name: 'Find a page by title or path' }).first().click();
    const words = [...'page number 19'];
    const finding = await answersTo(page, words.length, (n) => page.keyboard.press(words[n] ?? 'a'));
    const plain = await bareAnswers(bench.browser);
    return [
      figure(`Board of ${CAMPAIGNS} campaigns`, 'a letter of a search', searching, plain),
      figure(
        `Reach over ${PAGES.toLocaleString('en-GB')} pages`,
        'a letter of a page’s name',
        finding,
        plain,
      ),
    ];
  } finally {
    await bench.stop();
  }
}
