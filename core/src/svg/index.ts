export * from './arc';
export * from './document/read-svg';
export * from './path-data-reader';
export * from './path-data-writer';
