export * from './arrange';
export * from './letter-boxes';
export * from './letter-places';
export * from './placement';
