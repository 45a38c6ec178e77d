/** Entry of the bundle for a preview: a visit that counts nothing, with the panel that explains it. */
export { startPreview } from './preview/start-preview.ts';
