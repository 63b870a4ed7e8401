export * from './box';
export * from './matrix';
