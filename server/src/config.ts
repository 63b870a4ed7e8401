import path from 'node:path';

/** Everything that the environment may set. */
export interface Config {
  /** Folder of the database. ARC_SHIFT_DATA; default `data` in the working folder. */
  readonly dataFolder: string;
  readonly host: string;
  /** ARC_SHIFT_PORT; the next free one is taken when it is in use. */
  readonly port: number;
  /** Folder of the built web application, or undefined to serve the API only. */
  readonly webFolder?: string;
  readonly logLevel: string;
  /** Seed the demo pieces? */
  readonly demo: boolean;
}

const LOG_LEVELS = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'];

/** Reads the configuration; throws with what was expected when a variable makes no sense. */
export function readConfig(environment: Record<string, string | undefined>, args: readonly string[]): Config {
  const port = Number(environment.ARC_SHIFT_PORT ?? 4610);
  if (!Number.isInteger(port) || port < 0 || port > 65535) {
    throw new Error(
      `Expected ARC_SHIFT_PORT to be a port number from 0 to 65535; found “${environment.ARC_SHIFT_PORT}”.`,
    );
  }
  const logLevel = environment.ARC_SHIFT_LOG ?? 'info';
  if (!LOG_LEVELS.includes(logLevel))
    throw new Error(`Expected ARC_SHIFT_LOG to be one of ${LOG_LEVELS.join(', ')}; found “${logLevel}”.`);
  return {
    dataFolder: path.resolve(environment.ARC_SHIFT_DATA ?? 'data'),
    host: '127.0.0.1',
    port,
    webFolder: path.resolve(environment.ARC_SHIFT_WEB ?? 'build/web'),
    logLevel,
    demo: args.includes('--demo'),
  };
}
