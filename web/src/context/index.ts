export * from './bench';
export * from './editor';
export * from './engines';
