// Asks a running Velarium what becomes of a site's kept rehearsals, for the site's own build: ends with 0 where all that is
// expected holds, with 1 where something does not, with 2 where it could not be asked. Wants nothing but Node.js.
//
//   VELARIUM_KEY=… node scripts/rehearse.mjs https://studio.example SITE [live | drafts | CAMPAIGN]
const [studio, site, of = 'live'] = process.argv.slice(2);
const key = process.env.VELARIUM_KEY;

function stop(words) {
  console.error(words);
  process.exit(2);
}

if (!studio || !site)
  stop(
    'Usage: VELARIUM_KEY=… node scripts/rehearse.mjs https://studio.example SITE [live | drafts | CAMPAIGN]',
  );
if (!key) stop('VELARIUM_KEY is not set. Make a key that reads rehearsals: Team, Keys for other programs.');

async function ask() {
  const address = new URL(
    `/api/sites/${encodeURIComponent(site)}/rehearsals/outcome?${new URLSearchParams({ of })}`,
    studio,
  );
  const response = await fetch(address, {
    headers: { authorization: `Bearer ${key}` },
    signal: AbortSignal.timeout(60_000),
  });
  const answer = await response.json();
  if (!response.ok) throw new Error(`${answer.title}. ${answer.detail}`);
  return answer;
}

const outcome = await ask().catch((error) =>
  stop(`Nothing was rehearsed: ${error.cause?.message ?? error.message}`),
);
for (const { name, expectations } of outcome.failing) {
  console.log(`✗ ${name}`);
  for (const { words, why } of expectations) console.log(`    ${words} ${why}`);
}
console.log(`${outcome.asked - outcome.failing.length} of ${outcome.asked} rehearsals hold.`);
process.exitCode = outcome.exitCode;
