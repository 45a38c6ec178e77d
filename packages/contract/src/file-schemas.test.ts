import { expect, it } from 'vitest';
import { z } from 'zod';
import { campaignFileSchema } from './campaign-file.ts';
import { saveRehearsalSchema } from './rehearsal.ts';

/** `npx vitest run packages/contract -u` writes them anew when the contract has changed. */
it.each([
  ['campaign', campaignFileSchema],
  ['rehearsal', saveRehearsalSchema],
])('the published schema of a %s file is the contract’s own', async (what, schema) => {
  const published = z.toJSONSchema(schema, { target: 'draft-2020-12', reused: 'ref' });
  await expect(`${JSON.stringify(published, null, 2)}\n`).toMatchFileSnapshot(
    `../../../docs/${what}-file.schema.json`,
  );
});
