export * from './combine';
export * from './engine';
export * from './solids';
