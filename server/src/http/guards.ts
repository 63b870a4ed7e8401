import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { ApiError } from '../errors';

/** The one style that a package of the page writes by itself: the colour picker's, by the hash of its text. */
export const PICKER_STYLE = "'sha256-I2px+fnpbN4E5+Djrj7aoTIyq9yyREkuVl19f4Sye9A='";

/** Security headers: nothing from elsewhere, no inline script, no framing. */
export const securityHeaders: RequestHandler = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      // Path operations run as WebAssembly in a worker.
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      styleSrc: ["'self'", PICKER_STYLE],
      imgSrc: ["'self'", 'data:', 'blob:'],
      mediaSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      // The library that packs video divides what can be seen through in a worker that it makes itself.
      workerSrc: ["'self'", 'blob:'],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'none'"],
      frameAncestors: ["'none'"],
    },
  },
  // The server speaks plain HTTP on the loopback address.
  strictTransportSecurity: false,
  crossOriginEmbedderPolicy: true,
});

const LOCAL = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** Refuses requests that another site could have caused: foreign host names and foreign origins. */
export const localOnly: RequestHandler = (request, _response, next) => {
  const host = request.headers.host ?? '';
  if (!LOCAL.test(host))
    throw new ApiError(
      'origin-refused',
      `Expected a request to this machine's own address; found host “${host.slice(0, 60)}”.`,
    );
  const { origin } = request.headers;
  if (origin !== undefined && origin !== `http://${host}`)
    throw new ApiError('origin-refused', `Expected a request from http://${host}; found “${origin.slice(0, 60)}”.`);
  next();
};

/** Bodies must be declared as JSON, which a form of another site cannot do. */
export const jsonOnly: RequestHandler = (request, _response, next) => {
  const writes = request.method === 'POST' || request.method === 'PUT' || request.method === 'PATCH';
  if (writes && !request.is('application/json')) {
    throw new ApiError(
      'media-type',
      `Expected Content-Type application/json; found “${(request.headers['content-type'] ?? 'none').slice(0, 60)}”.`,
    );
  }
  next();
};
