export * from './api';
export * from './document';
export * from './drawing';
export * from './selectors';
export * from './session';
export * from './store';
