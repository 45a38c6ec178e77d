export type { CampaignRow } from './entities.ts';
export { campaignRoutes } from './routes.ts';
export { type CampaignService, createCampaignService } from './service.ts';
