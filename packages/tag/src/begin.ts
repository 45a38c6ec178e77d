import { createTopics, installApi, type Listener } from './api.ts';
import type { Beginning } from './beginning.ts';
import { createVisitorStore } from './store/visitor-store.ts';
import type * as Verdicts from './verdicts.ts';
import { startVisit, type Visit } from './visit.ts';

/** Begins to follow the visit, and lets the page's own script speak to it. */
export async function begin(beginning: Beginning): Promise<Visit> {
  const { script, manifest, storage } = beginning;
  const store = createVisitorStore(storage, script.key, manifest.site.sessionMinutes);
  const topics = createTopics();
  const visit = await startVisit(beginning, store, topics.tell);
  installApi({
    ...visit.api,
    on(topic, listener: Listener) {
      if (topic === 'verdict')
        beginning
          .loadPart<typeof Verdicts>('verdicts')
          .then(({ tellVerdicts }) => tellVerdicts(visit, topics.tell))
          .catch(() => {});
      return topics.on(topic, listener);
    },
  });
  return visit;
}
