export { FIRST_VARIANT, SITE_CHANGED } from './compile-site.ts';
export { contentHash } from './content-hash.ts';
export { createPreviewTokens, type PreviewTokens } from './preview-token.ts';
export { publishingRoutes } from './routes.ts';
export type { SiteToServe } from './served.ts';
export { createPublishingService, type PublishingService } from './service.ts';
