export * from './box';
export * from './hull';
export * from './matrix';
