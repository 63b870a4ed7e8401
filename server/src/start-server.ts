import type { Server } from 'node:http';
import { type Logger, pino } from 'pino';
import { buildApp } from './app';
import { startUploadChecker } from './checks/upload-checker';
import type { Config } from './config';
import { openDatabase } from './db/database';
import { seedDemo } from './demo/seed';
import { OutputRepository } from './features/outputs/repository';
import { PieceRepository } from './features/pieces/repository';
import { closerOf } from './http/closer';

const KEPT_DAYS = 30;
const PORTS_TRIED = 20;
const PATIENCE_MS = 5_000;
const UPLOAD_PATIENCE_MS = 10_000;
const UPLOAD_HEAP_MB = 1_024;

/** A running server. */
export interface RunningServer {
  readonly url: string;
  readonly logger: Logger;
  /** Lets current requests finish, cuts off hanging ones, and releases the data folder. */
  close(): Promise<void>;
}

/**
 * Opens the data folder and listens. Several servers, each on a folder of its own, may run in one process.
 * @param say prints a line for the person at the terminal
 * @throws StartError if the folder is in use or holds no database; system errors are passed on
 */
export async function startServer(config: Config, say: (line: string) => void): Promise<RunningServer> {
  const logger = pino({ level: config.logLevel });
  const database = await openDatabase(config.dataFolder);
  const repository = new PieceRepository(database);
  const checker = startUploadChecker({
    script: new URL('./upload-worker.mjs', import.meta.url),
    patienceMs: UPLOAD_PATIENCE_MS,
    heapMb: UPLOAD_HEAP_MB,
  });
  try {
    const keptSince = new Date(Date.now() - KEPT_DAYS * 86_400_000);
    await repository.emptyBin(keptSince);
    await new OutputRepository(database).clear(keptSince);
    if (config.demo) {
      const added = await seedDemo(repository);
      if (added.length > 0) say(`Added the demo pieces ${added.join(' and ')}.`);
    }
    const app = buildApp({ database, logger, checker, webFolder: config.webFolder });
    const server = await listen((port) => app.listen(port, config.host), config.port, say);
    const closeServer = closerOf(server, PATIENCE_MS);
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.port;
    return {
      url: `http://${config.host}:${port}`,
      logger,
      close: async () => {
        await closeServer();
        await Promise.all([database.close(), checker.close()]);
      },
    };
  } catch (error) {
    await Promise.all([database.close(), checker.close()]).catch(() => {});
    throw error;
  }
}

/** Listens on the first free port, starting at `port`. */
function listen(
  on: (port: number) => Server,
  port: number,
  say: (line: string) => void,
  tries = PORTS_TRIED,
): Promise<Server> {
  return new Promise((resolve, reject) => {
    const candidate = on(port);
    candidate.once('listening', () => resolve(candidate));
    candidate.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EADDRINUSE' || tries <= 1 || port === 0) {
        reject(error);
        return;
      }
      say(`Port ${port} is taken; trying ${port + 1}.`);
      resolve(listen(on, port + 1, say, tries - 1));
    });
  });
}
