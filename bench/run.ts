import { writeFileSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';
import { measureDecisions } from './decisions.ts';
import { measureEdge } from './edge.ts';
import type { Figure } from './measure.ts';
import { measureStarts } from './starts.ts';
import { measureTagSize } from './tag-size.ts';

const FILE = new URL('../docs/benchmarks.md', import.meta.url);

const row = ({ what, ours, reference, ratio, target, isMet }: Figure) =>
  `| ${what} | ${ours} | ${reference} | ${ratio} | ${target} | ${isMet ? 'met' : '**not met**'} |`;

async function main(): Promise<void> {
  const edge = await measureEdge();
  const figures = [...(await measureTagSize()), ...(await measureDecisions()), ...edge];
  const starts = await measureStarts();
  const machine = `${cpus().length} cores (${cpus()[0]?.model ?? 'unknown'}), ${Math.round(totalmem() / 2 ** 30)} GiB, Node.js ${process.version}`;
  const text = `# Benchmarks

Written by \`npm run bench\`; each line is one run in which both sides were measured. The machine is shared and noisy:
read the ratios.

${new Date().toISOString().slice(0, 10)}, ${machine}.

| what | ours | beside it | ratio | target | |
|---|---|---|---|---|---|
${figures.map(row).join('\n')}

| the running whole | |
|---|---|
| first \`npm start\` of a fresh clone (packages, cluster, seed, build; Debian's packages were there) | ${starts.firstSeconds.toFixed(1)} s |
| second \`npm start\` | ${starts.secondSeconds.toFixed(1)} s |
| resident memory of everything, PostgreSQL included (proportional share) | ${Math.round(starts.residentMb)} MB |

How each is measured stands in \`bench/\`. The intake runs over a durable cluster (fsync on) and checks that every
acknowledged event is stored; the decisions are checked to be the same on all three sides before they are timed.
`;
  writeFileSync(FILE, text);
  console.log(text);
}

await main();
