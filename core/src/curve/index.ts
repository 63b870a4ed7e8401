export * from './cubic';
export * from './fit';
export * from './length';
export * from './nearest';
