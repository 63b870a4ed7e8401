export { canMove } from './can-move';
export * from './lane-keys';
export * from './moments';
export * from './own-values';
export * from './rail';
export * from './reading-time';
