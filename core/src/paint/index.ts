export * from './blend';
export * from './colour';
export * from './gradient';
export * from './paint-blend';
