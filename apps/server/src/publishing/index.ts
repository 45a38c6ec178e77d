export { createPreviewTokens, type PreviewTokens } from './preview-token.ts';
export { publishingRoutes } from './routes.ts';
export {
  createPublishingService,
  type PublishingService,
  SITE_CHANGED,
  type SiteToServe,
} from './service.ts';
