import { type ChildProcess, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Sequelize } from 'sequelize';

const ROOT = path.resolve(import.meta.dirname, '../..');

/** A running server with a data folder of its own; it can be stopped and started again on the same data. */
export class TestServer {
  private process: ChildProcess | null = null;
  readonly dataFolder = fs.mkdtempSync(path.join(os.tmpdir(), 'arc-shift-e2e-'));
  url = '';
  private port = 0;

  /** Starts on a free port, or on the one it had before. */
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

  /** Ends it as a signal from the terminal would; resolves with its exit code. */
  async stop(): Promise<number | null> {
    const child = this.process;
    if (!child) return null;
    this.process = null;
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    return ended;
  }

  /** Puts something else in the place of what is stored of a piece, as a fault of the disk or another program would. */
  async spoil(pieceId: string, document: string): Promise<void> {
    await this.stop();
    const database = new Sequelize({
      dialect: 'sqlite',
      storage: path.join(this.dataFolder, 'arc-shift.sqlite'),
      logging: false,
    });
    await database.query('UPDATE pieces SET document = ? WHERE id = ?', { replacements: [document, pieceId] });
    await database.close();
    await this.start();
  }

  async dispose(): Promise<void> {
    await this.stop();
    fs.rmSync(this.dataFolder, { recursive: true, force: true });
  }
}
