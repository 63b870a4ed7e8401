export * from './eased-keys';
export * from './easing';
export { fitSegments } from './fit-segments';
export * from './presets';
