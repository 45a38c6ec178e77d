import { expect, it } from 'vitest';
import { z } from 'zod';
import { campaignFileSchema } from './campaign-file.ts';

/** `npx vitest run packages/contract -u` writes it anew when the contract has changed. */
it('the published schema of a campaign file is the contract’s own', async () => {
  const schema = z.toJSONSchema(campaignFileSchema, { target: 'draft-2020-12', reused: 'ref' });
  await expect(`${JSON.stringify(schema, null, 2)}\n`).toMatchFileSnapshot(
    '../../../docs/campaign-file.schema.json',
  );
});
