import type { Server } from 'node:http';

/**
 * Counts the requests of a server from now on. What it returns takes no further connections, lets requests under way be answered, for `patienceMs` at
 * most, and ends all connections. Browsers keep some open on which they have not asked anything yet; Node does not count these among the idle ones.
 */
export function closerOf(server: Server, patienceMs: number): () => Promise<void> {
  let underWay = 0;
  let closing = false;
  const endIfAnswered = (): void => {
    if (closing && underWay === 0) server.closeAllConnections();
  };
  server.on('request', (_request, response) => {
    underWay++;
    response.once('close', () => {
      underWay--;
      endIfAnswered();
    });
  });
  return async () => {
    closing = true;
    const closed = new Promise<void>((resolve) => server.close(() => resolve()));
    const cut = setTimeout(() => server.closeAllConnections(), patienceMs);
    endIfAnswered();
    await closed;
    clearTimeout(cut);
  };
}
