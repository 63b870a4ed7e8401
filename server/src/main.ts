import type { Server } from 'node:http';
import { pino } from 'pino';
import { buildApp } from './app';
import { startUploadChecker } from './checks/upload-checker';
import { readConfig } from './config';
import { openDatabase } from './db/database';
import { startErrorOf } from './db/storage-faults';
import { seedDemo } from './demo/seed';
import { PieceRepository } from './features/pieces/repository';

const BIN_DAYS = 30;
const PORTS_TRIED = 20;
const PATIENCE_MS = 5_000;
const UPLOAD_PATIENCE_MS = 10_000;
const UPLOAD_HEAP_MB = 1_024;

const config = readConfig(process.env, process.argv.slice(2));
const logger = pino({ level: config.logLevel });
const database = await openDatabase(config.dataFolder).catch(giveUp);
const repository = new PieceRepository(database);
await repository.emptyBin(new Date(Date.now() - BIN_DAYS * 86_400_000)).catch(giveUp);
if (config.demo) {
  const added = await seedDemo(repository).catch(giveUp);
  if (added.length > 0) process.stdout.write(`Added the demo pieces ${added.join(' and ')}.\n`);
}
const checker = startUploadChecker({
  script: new URL('./upload-worker.mjs', import.meta.url),
  patienceMs: UPLOAD_PATIENCE_MS,
  heapMb: UPLOAD_HEAP_MB,
});
const app = buildApp({ database, logger, checker, webFolder: config.webFolder });
const server = await listen(config.port);

/** Says in one sentence why there is no server, and ends. */
function giveUp(error: unknown): never {
  const known = startErrorOf(error, config.dataFolder);
  if (!known) throw error;
  process.stderr.write(`${known.message}\n`);
  process.exit(1);
}

/** Listens on the first free port from `port` on. */
function listen(port: number, tries = PORTS_TRIED): Promise<Server> {
  return new Promise((resolve, reject) => {
    const candidate = app.listen(port, config.host);
    candidate.once('listening', () => {
      const address = candidate.address();
      const actual = typeof address === 'object' && address ? address.port : port;
      process.stdout.write(`Arc Shift is open at http://${config.host}:${actual}\n`);
      resolve(candidate);
    });
    candidate.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code !== 'EADDRINUSE' || tries <= 1 || port === 0) {
        reject(error);
        return;
      }
      process.stdout.write(`Port ${port} is taken; trying ${port + 1}.\n`);
      resolve(listen(port + 1, tries - 1));
    });
  });
}

let closing = false;
function close(signal: string): void {
  if (closing) return;
  closing = true;
  logger.info({ signal }, 'closing');
  // Requests under way may finish; what hangs is cut off.
  const cut = setTimeout(() => server.closeAllConnections(), PATIENCE_MS);
  server.close(() => {
    clearTimeout(cut);
    void Promise.all([database.close(), checker.close()]).then(() => process.exit(0));
  });
  server.closeIdleConnections();
}
process.on('SIGINT', close);
process.on('SIGTERM', close);
