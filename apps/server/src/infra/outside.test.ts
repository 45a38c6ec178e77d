import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { createNetwork, OutsideError } from './network.ts';
import { createOutside } from './outside.ts';
import { createSender } from './send-outside.ts';

const network = createNetwork('127.0.0.0/8');
const read = (address: string) => createOutside(network)(address, { mostBytes: 100, timeoutMs: 5000 });
const send = (address: string) => createSender(network)({ address, method: 'POST', headers: {}, body: '' });
const leading = createServer((request, response) => {
  response
    .writeHead(302, { location: request.url === '/far' ? 'https://shop.example:80800/' : '/far' })
    .end();
});
let origin = '';
beforeAll(async () => {
  await new Promise<void>((done) => leading.listen(0, '127.0.0.1', done));
  origin = `http://127.0.0.1:${(leading.address() as AddressInfo).port}`;
});
afterAll(() => new Promise((done) => leading.close(done)));

it('says of an address that browsers do not know, asked or led to, that it is none', async () => {
  const none = new OutsideError('https://shop.example:80800/ is no address');
  await expect(read('https://shop.example:80800/')).rejects.toThrow(none);
  await expect(send('https://shop.example:80800/')).rejects.toThrow(none);
  await expect(read(`${origin}/near`)).rejects.toThrow(none);
});
