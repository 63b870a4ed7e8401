import express, { Router } from 'express';
import type { UploadKind } from '../../checks/read-upload';
import type { UploadChecker } from '../../checks/upload-checker';
import { ApiError } from '../../errors';
import { bodyLimit } from '../../http/bodies';
import { mediaTypeOf } from './media';
import type { AssetRepository } from './repository';

/** Largest picture or font. */
const ASSET_LIMIT = 10 * 1024 * 1024;

/** Routes under /api/assets: pictures to trace and own fonts, kept by the hash of their bytes. Each is read to its end before it is taken. */
export function assetRoutes(repository: AssetRepository, checker: UploadChecker): Router {
  const router = Router();
  router.post(
    '/',
    bodyLimit(ASSET_LIMIT),
    express.raw({ type: () => true, limit: ASSET_LIMIT }),
    async (request, response) => {
      const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
      const mediaType = mediaTypeOf(request.headers['content-type'], bytes);
      await checker.check(mediaType.startsWith('font/') ? 'font' : (mediaType as UploadKind), bytes);
      const name = String(request.query.name ?? 'Asset').slice(0, 200) || 'Asset';
      response.status(201).json(await repository.keep(name, mediaType, bytes));
    },
  );
  router.get('/:id', async (request, response) => {
    const asset = /^[a-f0-9]{64}$/.test(request.params.id) ? await repository.find(request.params.id) : undefined;
    if (!asset)
      throw new ApiError(
        'not-found',
        `Expected the id of a stored file; found “${request.params.id.slice(0, 64)}”.`,
        '/id',
      );
    response
      .set({
        'Content-Type': asset.mediaType,
        // An SVG opened on its own must not act.
        'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
        'Cache-Control': 'private, max-age=31536000, immutable',
        'X-Content-Type-Options': 'nosniff',
      })
      .send(asset.bytes);
  });
  return router;
}
