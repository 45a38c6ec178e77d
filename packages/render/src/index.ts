export { type BelowEdge, belowEdge } from './below-edge.ts';
export type { AnswerPart, Answers, Further } from './context.ts';
export * from './render.ts';
export { renderRichText } from './text.ts';
