import { type ChildProcess, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Sequelize } from 'sequelize';

const ROOT = path.resolve(import.meta.dirname, '../..');

/** A running server with a data folder of its own; it can be stopped and started again on the same data. */
export interface TestServer {
  readonly url: string;
  readonly dataFolder: string;
  /** Starts on a free port, or on the one it had before. */
  start(options?: { readonly demo?: boolean }): Promise<void>;
  /** Resolves with its exit code where it was a process of its own. */
  stop(): Promise<number | null>;
  /** Ends it at once, with whatever it is at; only where it is a process of its own. */
  kill(): Promise<void>;
  /** Stops it and removes its data. */
  dispose(): Promise<void>;
}

const freshFolder = (): string => fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-e2e-'));

/** The built server in the process of the tests: to load all its packages for each test takes longer than most tests. */
export class InnerServer implements TestServer {
  readonly dataFolder = freshFolder();
  private running: { close(): Promise<void> } | null = null;
  url = '';

  constructor(private port = 0) {}

  async start({ demo = false } = {}): Promise<void> {
    const { startServer }: typeof import('../../server/src/start-server') = await import(
      path.join(ROOT, 'build/server/start-server.mjs')
    );
    const started = await startServer(
      {
        dataFolder: this.dataFolder,
        host: '127.0.0.1',
        port: this.port,
        webFolder: path.join(ROOT, 'build/web'),
        logLevel: 'error',
        demo,
      },
      () => {},
    );
    this.running = started;
    this.url = started.url;
    this.port = Number(new URL(this.url).port);
  }

  async kill(): Promise<void> {
    throw new Error('A server in the process of the tests cannot be killed: the test is to use ownProcess.');
  }

  async stop(): Promise<null> {
    const { running } = this;
    this.running = null;
    await running?.close();
    return null;
  }

  async dispose(): Promise<void> {
    await this.stop();
    fs.rmSync(this.dataFolder, { recursive: true, force: true });
  }
}

/** The built server as it is started from a terminal. */
export class ServerProcess implements TestServer {
  readonly dataFolder = freshFolder();
  private process: ChildProcess | null = null;
  url = '';

  constructor(private port = 0) {}

  async start({ demo = false } = {}): Promise<void> {
    const child = spawn(process.execPath, ['build/server/main.mjs', ...(demo ? ['--demo'] : [])], {
      cwd: ROOT,
      env: {
        ...process.env,
        ARC_SHIFT_DATA: this.dataFolder,
        ARC_SHIFT_PORT: String(this.port),
        ARC_SHIFT_LOG: 'error',
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.process = child;
    this.url = await new Promise<string>((resolve, reject) => {
      let said = '';
      child.stdout?.on('data', (chunk: Buffer) => {
        said += chunk;
        const match = /http:\/\/\S+/.exec(said);
        if (match) resolve(match[0]);
      });
      child.once('exit', (code) => reject(new Error(`The server ended with ${code}: ${said}`)));
    });
    this.port = Number(new URL(this.url).port);
  }

  /** Ends it as a signal from the terminal would. */
  stop = (): Promise<number | null> => this.end('SIGTERM');

  async kill(): Promise<void> {
    await this.end('SIGKILL');
  }

  private async end(signal: NodeJS.Signals): Promise<number | null> {
    const child = this.process;
    if (!child) return null;
    this.process = null;
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
    child.kill(signal);
    return ended;
  }

  async dispose(): Promise<void> {
    await this.stop();
    fs.rmSync(this.dataFolder, { recursive: true, force: true });
  }
}

/** Puts something else in the place of what is stored of a piece, as a fault of the disk or another program would. */
export async function spoil(server: TestServer, pieceId: string, document: string): Promise<void> {
  await server.stop();
  const database = new Sequelize({
    dialect: 'sqlite',
    storage: path.join(server.dataFolder, 'arc-shift.sqlite'),
    logging: false,
  });
  await database.query('UPDATE pieces SET document = ? WHERE id = ?', { replacements: [document, pieceId] });
  await database.close();
  await server.start();
}
