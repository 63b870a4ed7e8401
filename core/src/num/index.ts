export { LIMITS, type Limit, limitIn, toMillionths, within } from './limits';
export * from './quadrature';
export * from './random';
export * from './roots';
export { textHash } from './text-hash';
export * from './tolerances';
