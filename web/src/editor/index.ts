export * from './commands';
export * from './editor';
export { PlaybackClock } from './playback/clock';
export { Stage, type View } from './playback/stage';
export { type PlanStatus, PlanStore } from './plans/plan-store';
export { Viewport } from './viewport/viewport';
export { importFiles, type ImportSource } from './import-files';
export { rememberedRule, rememberRule } from './commands/pose-actions';
export { type Autosave, readBackup, startAutosave } from './autosave';
