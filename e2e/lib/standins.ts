import { expect, type Velarium } from './velarium.ts';

interface Mail {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly html: string;
  readonly headers: string;
  readonly attachments: readonly { readonly name: string; readonly type: string }[];
}

/** The newest mail in the stand-in mailbox to this address, once it has come. */
export async function mailTo({ standins }: Velarium, address: string): Promise<Mail> {
  const find = async () =>
    ((await (await fetch(`${standins}/mailbox.json`)).json()) as Mail[]).find(({ to }) => to === address);
  await expect.poll(find).toBeTruthy();
  return (await find()) as Mail;
}

/** What the stand-in customer records have taken, the newest first. */
export const recordsOf = async ({
  standins,
}: Velarium): Promise<{ headers: Record<string, string>; body: unknown }[]> =>
  (await fetch(`${standins}/records`)).json();
