export * from './address.ts';
export * from './placement.ts';
