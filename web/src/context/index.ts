export * from './app-store';
export * from './editor';
export * from './engines';
export * from './outputs';
export * from './saving';
export * from './targets';
