export * from './check-easing';
export * from './check-piece';
export * from './clips';
export * from './follow';
export * from './piece-rules';
