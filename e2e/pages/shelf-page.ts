import type { Locator, Page } from '@playwright/test';
import type { TestServer } from '../support/server';

/** The shelf, in a designer's words. */
export class ShelfPage {
  constructor(
    readonly page: Page,
    private readonly server: TestServer,
  ) {}

  open = async (): Promise<void> => void (await this.page.goto(this.server.url));
  newPiece = async (): Promise<void> => {
    await this.page.getByRole('button', { name: 'New piece' }).first().click();
    await this.page.getByRole('region', { name: 'Canvas' }).waitFor();
  };
  card = (name: string): Locator =>
    this.page.getByRole('article').filter({ has: this.page.getByRole('heading', { name, exact: true }) });
  more = async (name: string, action: string, role: 'button' | 'link' = 'button'): Promise<void> => {
    await this.card(name)
      .getByRole('button', { name: `More for ${name}` })
      .click();
    await this.page.getByRole(role, { name: action }).click();
  };
}
