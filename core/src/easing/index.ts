export * from './easing';
export * from './presets';
