import { expect, type Locator, type Page } from '@playwright/test';

/** The Match room of the open piece, in a designer's words. */
export class MatchPage {
  constructor(readonly page: Page) {}

  get health(): Locator {
    return this.page.getByTestId('match-health');
  }
  start = (pose: string, i = 1): Locator => this.page.getByRole('slider', { name: `Start point ${i} of ${pose}` });
  tie = (pose: string, i = 1): Locator => this.page.getByRole('slider', { name: `Tie ${i} on ${pose}` });
  tool = async (name: string): Promise<void> =>
    void (await this.page.getByRole('button', { name, exact: true }).click());
  tab = async (name: string): Promise<void> => void (await this.page.getByRole('tab', { name, exact: true }).click());
  decision = (name: string): Locator => this.page.getByRole('region', { name, exact: true });
  isOwn = async (name: string, own = true): Promise<void> =>
    void (await expect(this.decision(name).locator('.decided-tag')).toHaveText(own ? 'set by you' : 'automatic'));

  /** Opens the room and waits until the shift at hand is matched. */
  open = async (): Promise<void> => {
    await this.page.keyboard.press('Escape');
    await this.page.getByRole('link', { name: 'Match', exact: true }).click();
    await this.matched();
  };
  matched = async (): Promise<void> => {
    await expect(this.health).not.toContainText('Being matched');
    // The pictures are painted before the next picture of the display.
    await this.page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  };
  /** Where a place in canvas px is on the screen, on one of the three pictures. */
  at = async (picture: 'a' | 'middle' | 'b', x: number, y: number): Promise<{ x: number; y: number }> => {
    const canvas = this.page.getByTestId(`match-${picture}`);
    const box = await canvas.boundingBox();
    const view = await canvas.getAttribute('data-view');
    if (!box || !view) throw new Error(`There is no picture ${picture}.`);
    const [scale, dx, dy] = view.split(' ').map(Number);
    return { x: box.x + x * scale + dx, y: box.y + y * scale + dy };
  };
  /** Drags; `resting` is done before the button is let go. */
  drag = async (
    from: { x: number; y: number },
    to: { x: number; y: number },
    resting?: () => Promise<void>,
  ): Promise<void> => {
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
    await this.page.mouse.move(to.x, to.y, { steps: 4 });
    await resting?.();
    await this.page.mouse.up();
  };
  middleOf = async (handle: Locator): Promise<{ x: number; y: number }> => {
    const box = await handle.locator('.match-grip').boundingBox();
    if (!box) throw new Error('The handle is not on the page.');
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  setProgress = async (progress: number): Promise<void> =>
    void (await this.page.getByLabel('Progress of the in-between').fill(String(progress)));
}
