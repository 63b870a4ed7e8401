export { type EngineClient, type Engines, startEngines } from './engine-client';
export { freshId } from './fresh-id';
