export * from './arrive';
export * from './clip-shapes';
export * from './exchange';
export * from './file-title';
export * from './from-svg';
export * from './storable';
