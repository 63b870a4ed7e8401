import type { RequestHandler } from 'express';
import { ApiError } from '../errors';
import { problemHandler } from './problems';

/** Largest request body in JSON. A piece file of this size has some 100,000 anchors. */
export const BODY_LIMIT = 20 * 1024 * 1024;

/** How long the rest of a body is still read and thrown away after the answer, ms: many a sender reads the answer only when all is sent. */
const LAST_WORDS_MS = 1_000;

/** Cuts a connection whose body has not ended some time after the answer: one that never ends would be read for ever. */
export const cutAfterAnswer: RequestHandler = (request, response, next) => {
  response.once('finish', () => {
    if (request.complete) return;
    setTimeout(() => {
      if (!request.complete) request.socket.destroy();
    }, LAST_WORDS_MS).unref();
  });
  next();
};

/**
 * Answers as soon as a body is longer than `limit` bytes. The parsers that follow know the limit too, but read a body without a length to its end
 * before they say so.
 */
export function bodyLimit(limit: number): RequestHandler {
  return (request, response, next) => {
    let seen = 0;
    request.on('data', (chunk: Buffer) => {
      seen += chunk.length;
      if (seen <= limit || response.headersSent) return;
      const megabytes = Math.round(limit / 1024 / 1024);
      const refusal = new ApiError('body-too-large', `Expected a body of at most ${megabytes} MB; this one is larger.`);
      void problemHandler(refusal, request, response, next);
    });
    next();
  };
}
