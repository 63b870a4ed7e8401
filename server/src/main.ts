import type { Server } from 'node:http';
import { pino } from 'pino';
import { buildApp } from './app';
import { readConfig } from './config';
import { openDatabase } from './db/database';
import { seedDemo } from './demo/seed';
import { PieceRepository } from './features/pieces/repository';

const BIN_DAYS = 30;
const PORTS_TRIED = 20;
const PATIENCE_MS = 5_000;

const config = readConfig(process.env, process.argv.slice(2));
const logger = pino({ level: config.logLevel });
const database = await openDatabase(config.dataFolder);
const repository = new PieceRepository(database);
await repository.emptyBin(new Date(Date.now() - BIN_DAYS * 86_400_000));
if (config.demo) {
  const added = await seedDemo(repository);
  if (added.length > 0) process.stdout.write(`Added the demo pieces ${added.join(' and ')}.\n`);
}
const app = buildApp({ database, logger, webFolder: config.webFolder });
const server = await listen(config.port);

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
    void database.close().then(() => process.exit(0));
  });
  server.closeIdleConnections();
}
process.on('SIGINT', close);
process.on('SIGTERM', close);
