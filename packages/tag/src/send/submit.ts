import type { Problem, Submit } from '@velarium/contract';

/** Sends a form's answers; rejects with words a visitor can act on. */
export async function submitAnswers(edge: string, submit: Submit): Promise<void> {
  let response: Response;
  try {
    response = await fetch(`${edge}/submit`, {
      method: 'POST',
      body: JSON.stringify(submit),
      credentials: 'omit',
    });
  } catch {
    throw new Error('This could not be sent. Please check your connection and try again.');
  }
  if (response.ok) return;
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  throw new Error(problem?.fields?.[0]?.message ?? 'This could not be sent. Please try again in a moment.');
}
