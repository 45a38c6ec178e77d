import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

interface Mail {
  readonly id: number;
  readonly receivedAt: string;
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly html: string;
  /** As they came, one a line. */
  readonly headers: string;
  readonly attachments: readonly { readonly name: string; readonly type: string; readonly bytes: number }[];
}

const KEPT = 500;

/** A mailbox that takes mail for anybody by real SMTP and keeps the newest in memory. */
export function createMailbox() {
  const mails: Mail[] = [];
  let lastId = 0;
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: 10_000_000,
    onData(stream, session, callback) {
      simpleParser(stream).then((mail) => {
        mails.unshift({
          id: ++lastId,
          receivedAt: new Date().toISOString(),
          from: mail.from?.text ?? '',
          to: session.envelope.rcptTo.map(({ address }) => address).join(', '),
          subject: mail.subject ?? '',
          text: mail.text ?? '',
          html: mail.html || '',
          headers: mail.headerLines.map(({ line }) => line).join('\n'),
          attachments: mail.attachments.map(({ filename, contentType, size }) => ({
            name: filename ?? '',
            type: contentType,
            bytes: size,
          })),
        });
        mails.splice(KEPT);
        callback();
      }, callback);
    },
  });
  // A client that hangs up in the middle is its own affair.
  server.on('error', () => {});
  return {
    mails: () => mails as readonly Mail[],
    empty: () => void mails.splice(0),
    listen: (port: number) =>
      new Promise<void>((resolve, reject) => {
        server.once('error', reject);
        server.listen(port, '127.0.0.1', () => resolve());
      }),
    close: () => new Promise<void>((resolve) => void server.close(() => resolve())),
  };
}
export type Mailbox = ReturnType<typeof createMailbox>;
