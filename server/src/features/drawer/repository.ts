import type { DrawerShape } from '@core';
import type { Database } from '../../db/database';

/** Outlines kept for reuse, the newest first. */
export class DrawerRepository {
  constructor(private readonly database: Database) {}

  async list(): Promise<DrawerShape[]> {
    const rows = await this.database.drawer.findAll({ order: [['createdAt', 'DESC']] });
    return rows.map(({ id, name, svg, createdAt }) => ({ id, name, svg, createdAt: createdAt.toISOString() }));
  }

  async add(id: string, name: string, svg: string): Promise<DrawerShape> {
    const row = await this.database.drawer.create({ id, name, svg });
    return { id, name, svg, createdAt: row.createdAt.toISOString() };
  }

  /** Whether there was such a shape. */
  async rename(id: string, name: string): Promise<boolean> {
    return (await this.database.drawer.update({ name }, { where: { id } }))[0] > 0;
  }

  async remove(id: string): Promise<boolean> {
    return (await this.database.drawer.destroy({ where: { id } })) > 0;
  }
}
