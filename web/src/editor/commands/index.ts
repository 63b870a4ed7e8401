export { COMMANDS, type Command, type CommandContext, type CommandId, commandById } from './table';
