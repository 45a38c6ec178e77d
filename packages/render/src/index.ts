export { renderRichText } from './blocks.ts';
export type { FormAnswers } from './form.ts';
export * from './render.ts';
