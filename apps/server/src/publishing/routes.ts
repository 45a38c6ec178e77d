import { campaignSchema } from '@velarium/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import { z } from 'zod';
import { requireRole } from '../accounts/index.ts';
import type { CampaignService } from '../campaigns/index.ts';
import type { PublishingService } from './service.ts';

const params = z.object({ campaignId: z.uuid() });
const MOVES = ['publish', 'rest', 'run', 'archive', 'restore'] as const;

/** One POST per move between states; each answers the campaign as it is afterwards. The caller guards the scope. */
export const publishingRoutes: FastifyPluginAsyncZod<{
  publishing: PublishingService;
  campaigns: CampaignService;
}> = async (app, { publishing, campaigns }) => {
  for (const move of MOVES) {
    app.post(
      `/campaigns/:campaignId/${move}`,
      { preHandler: requireRole('editor'), schema: { params, response: { 200: campaignSchema } } },
      async (request) => {
        await publishing[move](request.principal, request.params.campaignId);
        return campaigns.get(request.principal.workspaceId, request.params.campaignId);
      },
    );
  }
};
