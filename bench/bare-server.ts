import { readFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import Fastify from 'fastify';

/** The framework with nothing of ours: the same bytes from memory. Argument: the file to serve. */
const body = readFileSync(process.argv[2] ?? '');
const app = Fastify();
app.get('/', (_request, reply) => reply.type('application/json; charset=utf-8').send(body));
await app.listen({ port: 0, host: '127.0.0.1' });
process.send?.((app.server.address() as AddressInfo).port);
