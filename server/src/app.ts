import { randomUUID } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import express, { type Express } from 'express';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { UploadChecker } from './checks/upload-checker';
import type { Database } from './db/database';
import { AssetRepository } from './features/assets/repository';
import { assetRoutes } from './features/assets/routes';
import { DrawerRepository } from './features/drawer/repository';
import { drawerRoutes } from './features/drawer/routes';
import { EasingRepository } from './features/easings/repository';
import { easingRoutes } from './features/easings/routes';
import { OutputRepository } from './features/outputs/repository';
import { outputRoutes } from './features/outputs/routes';
import { PieceRepository } from './features/pieces/repository';
import { pieceRoutes } from './features/pieces/routes';
import { PieceService } from './features/pieces/service';
import { PlacedFiles } from './features/site/placed-files';
import { sitePlacementRoutes, siteRoutes } from './features/site/routes';
import { BODY_LIMIT, bodyLimit, cutAfterAnswer } from './http/bodies';
import { jsonOnly, localOnly, securityHeaders } from './http/guards';
import { noSuchRoute, problemHandler } from './http/problems';

export interface AppParts {
  readonly database: Database;
  readonly logger: Logger;
  /** Checks uploads before they are accepted. */
  readonly checker: UploadChecker;
  /** Folder of the built web application. Without it, only the API answers. */
  readonly webFolder?: string;
}

/** Builds the application without listening on a port. */
export function buildApp({ database, logger, checker, webFolder }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(
    pinoHttp({
      logger,
      genReqId: () => randomUUID(),
      autoLogging: { ignore: (request) => !request.url?.startsWith('/api') },
      serializers: { req: ({ id, method, url }) => ({ id, method, url }), res: ({ statusCode }) => ({ statusCode }) },
    }),
  );
  app.use(securityHeaders, cutAfterAnswer, localOnly);

  const pieces = new PieceService(new PieceRepository(database), randomUUID);
  const api = express.Router();
  api.use((_request, response, next) => {
    response.set('Cache-Control', 'no-store');
    next();
  });
  const placements = new PlacedFiles();
  api.use('/site', sitePlacementRoutes(placements));
  api.use('/assets', assetRoutes(new AssetRepository(database), checker));
  api.use('/outputs', outputRoutes(new OutputRepository(database)));
  api.use(jsonOnly, bodyLimit(BODY_LIMIT), express.json({ limit: BODY_LIMIT, strict: true }));
  api.use('/pieces', pieceRoutes(pieces));
  api.use('/drawer', drawerRoutes(new DrawerRepository(database), checker, randomUUID));
  api.use('/easings', easingRoutes(new EasingRepository(database), randomUUID));
  api.get('/health', (_request, response) => {
    response.json({ ok: true });
  });
  api.use(noSuchRoute);
  app.use('/api', api);
  app.use('/site', siteRoutes(placements));

  if (webFolder && fs.existsSync(path.join(webFolder, 'index.html'))) {
    app.use(
      '/assets',
      express.static(path.join(webFolder, 'assets'), { immutable: true, maxAge: '365d', fallthrough: false }),
    );
    app.use(express.static(webFolder, { index: false }));
    // Every other address belongs to the single page application.
    app.get('/{*path}', (_request, response) => {
      response.set('Cache-Control', 'no-cache').sendFile(path.join(webFolder, 'index.html'));
    });
  }
  app.use(problemHandler);
  return app;
}
