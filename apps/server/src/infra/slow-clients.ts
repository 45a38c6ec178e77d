/** How long a request may take to arrive, milliseconds. Whoever drips a body in holds a place that others need. */
const ARRIVAL_MS = 15_000;
const CHECKED_EVERY_MS = 2000;

/** For Fastify: a request that is not whole in time is answered 408 and its connection is closed. */
export const SLOW_CLIENTS = {
  requestTimeout: ARRIVAL_MS,
  http: { headersTimeout: ARRIVAL_MS, connectionsCheckingInterval: CHECKED_EVERY_MS },
  // An end that waited for every open connection would never come.
  forceCloseConnections: true,
} as const;
