import type { Piece } from '@core';
import { expect, type Locator, type Page } from '@playwright/test';
import { type DroppedFile, dropFiles } from '../support/drop';
import type { TestServer } from '../support/server';

/** An open piece, in a designer's words. */
export class PiecePage {
  constructor(
    readonly page: Page,
    private readonly server: TestServer,
  ) {}

  get canvas(): Locator {
    return this.page.getByRole('region', { name: 'Canvas' });
  }
  get rail(): Locator {
    return this.page.locator('.rail-picture');
  }
  get cards(): Locator {
    return this.page.getByRole('button', { name: /^Pose \d/ });
  }
  get arcs(): Locator {
    return this.page.getByRole('button', { name: /^Shift / });
  }
  /** Rows of the list of figures. */
  get figures(): Locator {
    return this.page.getByRole('button', { name: /^Figure / });
  }
  get id(): string {
    return /piece\/([^/]+)/.exec(this.page.url())?.[1] ?? '';
  }

  open = async (id: string, room: 'shapes' | 'match' | 'timing' | 'output' = 'shapes'): Promise<void> => {
    await this.page.goto(`${this.server.url}/piece/${id}/${room}`);
    await this.rail.waitFor();
  };
  drop = (files: readonly DroppedFile[]): Promise<void> => dropFiles(this.canvas, files);
  dropOnRail = (files: readonly DroppedFile[], x: number): Promise<void> => dropFiles(this.rail, files, x);
  /** Pastes text by the keys, as it lies in the clipboard; the page must be allowed to write there. */
  pasteByKeys = async (text: string): Promise<void> => {
    await this.page.evaluate((copied) => navigator.clipboard.writeText(copied), text);
    await this.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await this.page.keyboard.press('Control+v');
  };
  play = async (): Promise<void> => void (await this.page.getByRole('button', { name: 'Play', exact: true }).click());
  pause = async (): Promise<void> => void (await this.page.getByRole('button', { name: 'Pause', exact: true }).click());
  seconds = async (): Promise<number> => Number.parseFloat((await this.page.getByTestId('time').textContent()) ?? '');
  selectShift = async (i: number): Promise<void> => {
    await this.arcs.nth(i).focus();
    await this.page.keyboard.press('Enter');
  };
  number = (label: string): Locator => this.page.getByLabel(label, { exact: true });
  setNumber = async (label: string, value: string): Promise<void> => {
    await this.number(label).fill(value);
    await this.number(label).press('Enter');
  };
  matched = async (): Promise<void> => {
    for (const arc of await this.arcs.all()) await expect(arc).not.toHaveAttribute('aria-label', /being matched/);
  };
  saved = async (): Promise<void> => void (await expect(this.page.getByTestId('save-state')).toHaveText('Saved'));
  /** What the server has, once the page says that it has all. */
  stored = async (): Promise<Piece> => {
    await this.saved();
    const response = await this.page.request.get(`${this.server.url}/api/pieces/${this.id}`);
    return ((await response.json()) as { piece: Piece }).piece;
  };
  /** The same, once it is as it should be: for what a worker has to do first. */
  storedWith = async (isSo: (piece: Piece) => boolean): Promise<Piece> => {
    let last = await this.stored();
    await expect
      .poll(async () => {
        last = await this.stored();
        return isSo(last);
      })
      .toBe(true);
    return last;
  };
  /** A hash of the canvas's pixels. */
  picture = (): Promise<string> =>
    this.page.getByTestId('canvas').evaluate(async (canvas) => {
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      const c = canvas as HTMLCanvasElement;
      const data = (c.getContext('2d') as CanvasRenderingContext2D).getImageData(0, 0, c.width, c.height).data;
      let hash = 0;
      for (let i = 0; i < data.length; i++) hash = (Math.imul(hash, 31) + data[i]) | 0;
      return String(hash);
    });
}
