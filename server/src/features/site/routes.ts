import { PLAYER, SITE_KINDS, SITE_SLOTS, type SiteKind, type SiteSlot } from '@core';
import express, { type Response, Router } from 'express';
import { ApiError } from '../../errors';
import { bodyLimit } from '../../http/bodies';
import { SITE_STYLE, sitePage } from './page';
import type { PlacedFiles } from './placed-files';

/** Largest file that is put on the page. */
const FILE_LIMIT = 40 * 1024 * 1024;

/** What the page may show, by media type, and how. */
const MEDIA: Readonly<Record<string, readonly SiteKind[]>> = {
  'image/svg+xml': ['image', 'element'],
  'image/png': ['image'],
  'image/apng': ['image'],
  'image/gif': ['image'],
  'video/mp4': ['video'],
  'video/webm': ['video'],
};

function slotOf(text: string): SiteSlot {
  const slot = SITE_SLOTS.find((each) => each === text);
  if (!slot)
    throw new ApiError(
      'not-found',
      `Expected a place of the page (${SITE_SLOTS.join(', ')}); found “${text.slice(0, 40)}”.`,
      '/slot',
    );
  return slot;
}

/** Routes under /api/site: what is put on the ferry line's page, one file a place, and taken off again. */
export function sitePlacementRoutes(placements: PlacedFiles): Router {
  const router = Router();
  router.get('/', (_request, response) => {
    response.json(
      placements
        .all()
        .map(({ slot, kind, name, mediaType, bytes }) => ({ slot, kind, name, mediaType, size: bytes.length })),
    );
  });
  router.put(
    '/:slot',
    bodyLimit(FILE_LIMIT),
    express.raw({ type: () => true, limit: FILE_LIMIT }),
    (request, response) => {
      const slot = slotOf(String(request.params.slot));
      const mediaType = (request.headers['content-type'] ?? '').split(';')[0].trim();
      const kinds = Object.hasOwn(MEDIA, mediaType) ? MEDIA[mediaType] : undefined;
      if (!kinds)
        throw new ApiError(
          'media-type',
          `Expected ${Object.keys(MEDIA).join(', ')}; found “${mediaType.slice(0, 60)}”.`,
        );
      const asked = SITE_KINDS.find((each) => each === request.query.as) ?? kinds[0];
      if (!kinds.includes(asked))
        throw new ApiError(
          'content-invalid',
          `Expected ${mediaType} to be shown as ${kinds.join(' or ')}; found “${asked}”.`,
          '/as',
        );
      const bytes = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
      if (bytes.length === 0) throw new ApiError('content-invalid', 'Expected a file; found nothing.');
      const name = String(request.query.name ?? 'Picture').slice(0, 200) || 'Picture';
      placements.put({ slot, kind: asked, mediaType, name, bytes });
      response.status(201).json({ slot, kind: asked, name, mediaType, size: bytes.length });
    },
  );
  router.delete('/:slot', (request, response) => {
    const slot = slotOf(String(request.params.slot));
    if (!placements.remove(slot))
      throw new ApiError('not-found', `Expected a file in ${slot}; there is none.`, '/slot');
    response.status(204).end();
  });
  return router;
}

const FRAMED = "frame-ancestors 'self'";

/** The page itself, under /site, with its files. It may stand in a frame of the program, and run the player and nothing else. */
export function siteRoutes(placements: PlacedFiles): Router {
  const router = Router();
  const send = (response: Response, type: string, policy: string, content: string | Buffer): void => {
    response
      .set({
        'Content-Type': type,
        'Content-Security-Policy': policy,
        'Cache-Control': 'no-store',
        'X-Content-Type-Options': 'nosniff',
      })
      .send(content);
  };
  router.get('/', (request, response) => {
    const look = { dark: request.query.theme === 'dark', lessMotion: request.query.motion === 'less' };
    const policy = `default-src 'self'; style-src 'self' 'unsafe-inline'; object-src 'none'; base-uri 'none'; form-action 'none'; ${FRAMED}`;
    send(response, 'text/html; charset=utf-8', policy, sitePage(placements, look));
  });
  router.get('/site.css', (_request, response) => {
    send(response, 'text/css; charset=utf-8', "default-src 'none'", SITE_STYLE);
  });
  router.get('/moving-piece.js', (_request, response) => {
    send(response, 'text/javascript; charset=utf-8', "default-src 'none'", PLAYER);
  });
  router.get('/file/:slot', (request, response) => {
    const placed = placements.find(slotOf(String(request.params.slot)));
    if (!placed) throw new ApiError('not-found', 'Expected a file in this place; there is none.', '/slot');
    // A picture asks the system whether less motion is wanted: for this visitor it is.
    const less = request.query.motion === 'less' && placed.mediaType === 'image/svg+xml';
    const bytes = less
      ? placed.bytes.toString('utf8').replace(/@media \(prefers-reduced-motion:\s*reduce\)/g, '@media all')
      : placed.bytes;
    send(response, placed.mediaType, "default-src 'none'; style-src 'unsafe-inline'; sandbox", bytes);
  });
  return router;
}
