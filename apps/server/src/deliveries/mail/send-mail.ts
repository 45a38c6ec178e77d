import type { SaveSending } from '@velarium/contract';
import { createTransport, type Transporter } from 'nodemailer';
import MailComposer from 'nodemailer/lib/mail-composer/index.js';
import type SmtpPool from 'nodemailer/lib/smtp-pool/index.js';
import type { Network } from '../../infra/network.ts';

/** How mail goes out: a server, and who it is from. */
export interface MailWay extends Omit<SaveSending, 'password'> {
  readonly password: string;
}

export interface OutgoingMail {
  /** Stays the same over all tries: the mail's own id (RFC 5322, 3.6.4). */
  readonly id: string;
  readonly to: readonly string[];
  readonly replyTo: string | null;
  readonly subject: string;
  readonly html: string;
  readonly text: string;
  /** Where somebody leaves by one press in their mail program (RFC 2369, 3.2 and RFC 8058). */
  readonly leaveAddress: string | null;
  readonly attachments: readonly { readonly name: string; readonly type: string; readonly bytes: Buffer }[];
  /** What may not be read in the Outbox: links that act for somebody. */
  readonly covered: readonly string[];
}

export interface MailSent {
  readonly isGood: boolean;
  /** The server will not take it, however often it is tried. */
  readonly isFinal: boolean;
  /** SMTP's reply code (RFC 5321, 4.2), where there was one. */
  readonly status: number | null;
  readonly words: string;
  readonly answer: string;
  /** The mail to the byte, with pictures named instead of written out and what acts for somebody covered. */
  readonly sent: string;
}

const TIMEOUT_MS = 10_000;
/** Connections to one server from this process. */
const AT_ONCE = 5;
/** A server's address is looked up again after this long. */
const FRESH_MS = 300_000;

function compose(mail: OutgoingMail, way: MailWay, isToRead: boolean): Promise<Buffer> {
  const domain = way.fromAddress.slice(way.fromAddress.lastIndexOf('@') + 1);
  return new MailComposer({
    from: { name: way.fromName, address: way.fromAddress },
    to: [...mail.to],
    ...(mail.replyTo ? { replyTo: mail.replyTo } : {}),
    subject: mail.subject,
    html: mail.html,
    text: mail.text,
    messageId: `<${mail.id}@${domain}>`,
    headers: {
      // RFC 3834, 5: no machine should answer it.
      'Auto-Submitted': 'auto-generated',
      ...(mail.leaveAddress
        ? {
            'List-Unsubscribe': `<${mail.leaveAddress}>`,
            'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
          }
        : {}),
    },
    attachments: mail.attachments.map(({ name, type, bytes }) => ({
      filename: name,
      contentType: isToRead ? 'text/plain' : type,
      content: isToRead ? `[${type}, ${bytes.byteLength} bytes]` : bytes,
    })),
  })
    .compile()
    .build();
}

/** Sends mail by SMTP, over kept connections. Only servers that may be asked are; see {@link Network}. */
export function createMailSender(network: Network) {
  interface Kept {
    readonly key: string;
    readonly transport: Transporter;
    readonly madeMs: number;
  }
  const kept = new Map<string, Kept>();

  async function transportOf(lane: string, way: MailWay): Promise<Transporter> {
    const key = JSON.stringify(way);
    const known = kept.get(lane);
    if (known?.key === key && Date.now() - known.madeMs < FRESH_MS) return known.transport;
    known?.transport.close();
    const address = await network.resolve(way.host.replace(/^\[|\]$/g, ''));
    const transport = createTransport({
      host: address,
      port: way.port,
      secure: way.security === 'tls',
      requireTLS: way.security === 'starttls',
      ignoreTLS: way.security === 'none',
      tls: { servername: way.host },
      ...(way.user ? { auth: { user: way.user, pass: way.password } } : {}),
      pool: true,
      maxConnections: AT_ONCE,
      connectionTimeout: TIMEOUT_MS,
      greetingTimeout: TIMEOUT_MS,
      socketTimeout: TIMEOUT_MS,
    } satisfies SmtpPool.Options);
    kept.set(lane, { key, transport, madeMs: Date.now() });
    return transport;
  }

  return {
    async send(lane: string, way: MailWay, mail: OutgoingMail): Promise<MailSent> {
      const sent = (await compose(covered(mail), way, true)).toString('utf8');
      try {
        const transport = await transportOf(lane, way);
        const raw = await compose(mail, way, false);
        const { response } = await transport.sendMail({
          envelope: { from: way.fromAddress, to: [...mail.to] },
          raw,
        });
        const answer = String(response ?? '');
        return { isGood: true, isFinal: false, status: codeIn(answer), words: 'Taken.', answer, sent };
      } catch (error) {
        return { ...mailFault(error, way), isGood: false, sent };
      }
    },

    /** Whether a server takes mail from us, and what it says. */
    async verify(way: MailWay): Promise<{ isGood: boolean; words: string }> {
      try {
        const transport = await transportOf(`trial ${Math.random()}`, way);
        await transport.verify();
        transport.close();
        return { isGood: true, words: `${way.host} takes mail.` };
      } catch (error) {
        return { isGood: false, words: mailFault(error, way).words };
      }
    },

    close(): void {
      for (const { transport } of kept.values()) transport.close();
      kept.clear();
    },
  };
}
export type MailSender = ReturnType<typeof createMailSender>;

/** A mail whose secrets cannot be read. Covered before it is written out, since the transfer encoding folds long links. */
function covered(mail: OutgoingMail): OutgoingMail {
  const cover = (text: string) => mail.covered.reduce((all, secret) => all.replaceAll(secret, '…'), text);
  return {
    ...mail,
    html: cover(mail.html),
    text: cover(mail.text),
    leaveAddress: mail.leaveAddress && cover(mail.leaveAddress),
  };
}

const codeIn = (response: string): number | null =>
  Number(/^\d{3}/.exec(response)?.[0] ?? Number.NaN) || null;

interface SmtpError {
  readonly code?: string;
  readonly responseCode?: number;
  readonly response?: string;
  readonly message: string;
}

/** What went wrong, in words a person can act on. */
function mailFault(raised: unknown, { host, port }: MailWay) {
  const error = raised as SmtpError;
  const answer = error.response ?? error.message;
  const said = error.response ? ` It says: ${error.response}` : '';
  const status = error.responseCode ?? null;
  const fault = (words: string, isFinal = false) => ({ words, isFinal, status, answer });
  if (error.code === 'EAUTH') return fault(`${host} did not take the name and the password.${said}`);
  if (error.code === 'ETLS' || /certificate|TLS|SSL/i.test(error.message))
    return fault(`${host} and Velarium could not agree on a safe connection: ${error.message}`);
  // A reply of the class 5 is final for this mail. Source: RFC 5321, 4.2.1.
  if (status !== null && status >= 500) return fault(`${host} refused it.${said}`, true);
  if (status !== null) return fault(`${host} did not take it for now.${said}`);
  return fault(`${host}, port ${port}, could not be reached: ${error.message}`);
}
