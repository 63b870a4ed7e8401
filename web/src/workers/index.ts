export { EngineCancelled, type EngineClient, type Engines, startEngines } from './engine-client';
export { checkFileSize } from './file-size';
export { freshId } from './fresh-id';
export { makeCanvas } from './make-canvas';
export { planInPortions } from './plan-in-portions';
export { SHIPPED_FONTS } from './shipped-fonts';
