import { createStandinsApp } from './app.ts';
import { createMailbox } from './mailbox.ts';

const mailbox = createMailbox();
const app = createStandinsApp(mailbox);
await mailbox.listen(Number(process.env.VELARIUM_SMTP_PORT ?? 4425));
await app.listen({ port: Number(process.env.VELARIUM_STANDINS_PORT ?? 4420), host: '127.0.0.1' });
process.send?.('ready');

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => void Promise.all([app.close(), mailbox.close()]).then(() => process.exit(0)));
}
