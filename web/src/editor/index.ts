export { type Autosave, readBackup, startAutosave } from './autosave';
export * from './commands';
export { rememberedRule, rememberRule } from './commands/pose-actions';
export * from './editor';
export { importFiles } from './import-files';
export type { PlanStatus } from './plans/plan-store';
export { Stage } from './playback/stage';
