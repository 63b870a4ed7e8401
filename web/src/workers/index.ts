export { EngineCancelled, type EngineClient, type Engines, startEngines } from './engine-client';
export { freshId } from './fresh-id';
export { SHIPPED_FONTS } from './shipped-fonts';
