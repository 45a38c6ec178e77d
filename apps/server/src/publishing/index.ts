export { contentHash } from './content-hash.ts';
export { createPreviewTokens, type PreviewTokens } from './preview-token.ts';
export { publishingRoutes } from './routes.ts';
export {
  createPublishingService,
  FIRST_VARIANT,
  type PublishingService,
  SITE_CHANGED,
  type SiteToServe,
} from './service.ts';
