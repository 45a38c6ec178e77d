import type { Velarium } from './velarium.ts';

interface Session {
  /** Of its cookie. */
  readonly name: string;
  readonly value: string;
  readonly csrfToken: string;
}

/** Kept, as promises so that several who ask at once sign in once: a sign-in is dear, and limited to a few a minute. */
const sessions = new Map<string, Promise<Session>>();

async function begin(studio: string, email: string): Promise<Session> {
  const response = await fetch(`${studio}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: 'clear-skies-tonight' }),
  });
  if (!response.ok) throw new Error(`sign-in of ${email}: ${response.status} ${await response.text()}`);
  const [name = '', value = ''] = response.headers.getSetCookie()[0]?.split(';')[0]?.split('=') ?? [];
  const { csrfToken } = (await response.json()) as { csrfToken: string };
  return { name, value, csrfToken };
}

/** A session of this worker's studio; the form through which people begin theirs has tests of its own. */
export function sessionOf(
  { studio }: Pick<Velarium, 'studio'>,
  email = 'mara@quillonfell.example',
): Promise<Session> {
  const key = `${studio} ${email}`;
  const begun = sessions.get(key) ?? begin(studio, email);
  sessions.set(key, begun);
  return begun;
}
