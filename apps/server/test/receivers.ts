import { createServer, type IncomingHttpHeaders, type RequestListener } from 'node:http';
import type { AddressInfo } from 'node:net';
import { type ParsedMail, simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

interface ReceivedMail {
  readonly to: readonly string[];
  readonly mail: ParsedMail;
}

/** A mailbox by real SMTP; `refuse` makes it answer with a code of its own. */
export async function createMailbox() {
  const mails: ReceivedMail[] = [];
  let refusal: { responseCode: number; message: string } | undefined;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, session, done) {
      simpleParser(stream).then((mail) => {
        if (refusal) return done(Object.assign(new Error(refusal.message), refusal));
        mails.push({ to: session.envelope.rcptTo.map(({ address }) => address), mail });
        done();
      }, done);
    },
  });
  server.on('error', () => {});
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
  const { port } = server.server.address() as AddressInfo;
  return {
    port,
    mails,
    refuse: (responseCode: number | null, message = 'no') => {
      refusal = responseCode === null ? undefined : { responseCode, message };
    },
    close: () => new Promise<void>((resolve) => server.close(() => resolve())),
  };
}

interface ReceivedCall {
  readonly method: string;
  readonly headers: IncomingHttpHeaders;
  readonly body: string;
}
type Answer =
  | { readonly status: number; readonly headers?: Record<string, string>; readonly body?: string }
  | 'hang';

/** Another service that takes calls; `answer` says what it does with the next ones. */
export async function createReceiver() {
  const calls: ReceivedCall[] = [];
  let answer: Answer = { status: 202 };
  const take: RequestListener = (request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk) => chunks.push(chunk));
    request.on('end', () => {
      calls.push({
        method: request.method ?? '',
        headers: request.headers,
        body: Buffer.concat(chunks).toString('utf8'),
      });
      if (answer !== 'hang') response.writeHead(answer.status, answer.headers).end(answer.body ?? '');
    });
  };
  const server = createServer(take);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return {
    address: `http://127.0.0.1:${port}/hook`,
    calls,
    answer: (next: Answer) => {
      answer = next;
    },
    close: () =>
      new Promise<void>((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}
