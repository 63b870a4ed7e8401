export * from './compile';
export * from './draw';
export * from './frame-at';
export * from './part-plans';
export * from './sample';
export * from './shift-input';
