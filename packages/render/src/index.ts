export { renderRichText } from './blocks.ts';
export type { Answers } from './form.ts';
export * from './render.ts';
