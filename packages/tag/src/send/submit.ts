import type { Problem, Submit, VisitorEvent } from '@velarium/contract';
import { toJson } from '@velarium/core/decide';
import type { OwnWord } from '@velarium/core/message';
import type { SiteScript } from '../site-script.ts';

/** What was sent and not heard of, by showing and form: sent again it is the same answer, also where it did arrive. */
const unheard = new Map<string, VisitorEvent>();

/**
 * Sends a form's answers with the event they convert by; rejects with words a visitor can act on, or with the name of such
 * words, which the message has in its language.
 */
export async function submitAnswers(
  { edge, key }: SiteScript,
  visitor: string,
  event: VisitorEvent,
  answered: Omit<Submit, 'site' | 'visitor' | 'event'>,
): Promise<void> {
  const of = `${answered.showing} ${answered.form}`;
  const known = unheard.get(of) ?? event;
  unheard.set(of, known);
  const body = { site: key, visitor, event: known as Submit['event'], ...answered } satisfies Submit;
  let response: Response;
  try {
    response = await fetch(`${edge}/submit`, {
      method: 'POST',
      body: toJson(body),
      credentials: 'omit',
    });
  } catch {
    throw new Error('unsent' satisfies OwnWord);
  }
  if (response.ok) {
    unheard.delete(of);
    return;
  }
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  throw new Error(problem?.fields?.[0]?.message ?? ('later' satisfies OwnWord));
}
