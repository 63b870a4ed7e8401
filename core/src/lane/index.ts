export * from './blend';
export * from './lane';
export * from './paint-lanes';
export * from './progress-keys';
export * from './properties';
