import { explain } from '@velarium/core/explain';
import type { createTopics } from '../api.ts';
import type { Visit } from '../visit.ts';

const EVERY_MS = 250;

/** Tells the page's listeners each campaign's verdict whenever its code changes. */
export function tellVerdicts(visit: Visit, tell: ReturnType<typeof createTopics>['tell']): void {
  const told = new Map<string, string>();
  const look = () => {
    const [view, input, memory, now] = visit.look();
    explain(view, input, memory, now).forEach((verdict, n) => {
      const { id } = input.manifest.campaigns[n] as { id: string };
      if (told.get(id) === verdict.code) return;
      told.set(id, verdict.code);
      tell('verdict', id, { verdict });
    });
  };
  look();
  setInterval(look, EVERY_MS);
}
