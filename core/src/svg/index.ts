export * from './arc';
export * from './document/read-svg';
export type { SvgStroke } from './document/stroke';
export * from './path-data-reader';
export * from './path-data-writer';
