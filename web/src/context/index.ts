export * from './drawing';
export * from './editor';
export * from './engines';
export * from './saving';
