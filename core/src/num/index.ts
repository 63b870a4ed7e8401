export * from './quadrature';
export * from './random';
export * from './roots';
export * from './tolerances';
