export * from './api';
export * from './bench';
export * from './document';
export * from './selectors';
export * from './session';
export * from './store';
