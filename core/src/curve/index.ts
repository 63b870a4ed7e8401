export * from './cubic';
export * from './length';
