export * from './address.ts';
export * from './placement.ts';
export * from './edit.ts';
