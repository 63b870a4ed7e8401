export * from './drawing';
export * from './editor';
export * from './engines';
export * from './outputs';
export * from './saving';
