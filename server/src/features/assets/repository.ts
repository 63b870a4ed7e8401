import { createHash } from 'node:crypto';
import type { KeptAsset } from '@core';
import { UniqueConstraintError } from 'sequelize';
import type { Database } from '../../db/database';

export interface StoredAsset {
  readonly mediaType: string;
  readonly bytes: Buffer;
}

/** Files beside pieces. The same bytes are kept once. */
export class AssetRepository {
  constructor(private readonly database: Database) {}

  async keep(name: string, mediaType: string, bytes: Buffer): Promise<KeptAsset> {
    const id = createHash('sha256').update(bytes).digest('hex');
    try {
      await this.database.assets.create({ id, name, mediaType, bytes });
    } catch (error) {
      if (!(error instanceof UniqueConstraintError)) throw error;
    }
    return { id, name, mediaType };
  }

  async find(id: string): Promise<StoredAsset | undefined> {
    const row = await this.database.assets.findByPk(id);
    return row ? { mediaType: row.mediaType, bytes: row.bytes } : undefined;
  }
}
