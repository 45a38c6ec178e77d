/** Entry of the bundle for those who want to see why: the preview panel, and verdicts told to the page. */
export { openPreview } from './preview/open-preview.ts';
export { tellVerdicts } from './preview/tell-verdicts.ts';
