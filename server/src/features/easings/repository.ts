import type { Easing, KeptEasing } from '@core';
import type { Database } from '../../db/database';

/** Easings kept for reuse, by name. */
export class EasingRepository {
  constructor(private readonly database: Database) {}

  async list(): Promise<KeptEasing[]> {
    const rows = await this.database.easings.findAll({ order: [['name', 'ASC']] });
    return rows.map(({ id, name, easing }) => ({ id, name, easing: JSON.parse(easing) as Easing }));
  }

  async add(id: string, name: string, easing: Easing): Promise<KeptEasing> {
    await this.database.easings.create({ id, name, easing: JSON.stringify(easing) });
    return { id, name, easing };
  }

  /** Whether there was such an easing. */
  async remove(id: string): Promise<boolean> {
    return (await this.database.easings.destroy({ where: { id } })) > 0;
  }
}
