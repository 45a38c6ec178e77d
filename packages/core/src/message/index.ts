export * from './address.ts';
export * from './edit.ts';
export * from './placement.ts';
