export * from './check-piece';
export * from './defaults';
export * from './edit';
export * from './from-svg';
export * from './geometry';
export * from './placement';
export * from './rail';
export * from './records';
