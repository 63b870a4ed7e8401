export * from './editor';
export * from './engines';
