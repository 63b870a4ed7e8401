export * from './blend';
export * from './colour';
