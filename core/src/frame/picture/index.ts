export * from './canvas-target';
export * from './draw';
export * from './frame-at';
export * from './painted-box';
export * from './point-paths';
export * from './sample';
export * from './stage';
export * from './still-piece';
