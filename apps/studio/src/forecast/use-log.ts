import type { Site, Traffic } from '@velarium/contract';
import type { LogFound } from '@velarium/core';
import { create } from 'zustand';
import type { LogAnswer, LogTask } from './log.worker.ts';

/** A log that is being read, or has been; it stays in this browser's memory until the studio is left. */
export interface ReadLog {
  readonly name: string;
  /** 0 to 1, of the file. */
  readonly share: number;
  readonly found: LogFound | null;
  /** Once the whole of it has been read. */
  readonly traffic: Traffic | null;
  readonly failed: string | null;
  readonly thread: Worker | null;
}
interface Logs {
  readonly bySite: Readonly<Record<string, ReadLog>>;
  put(siteId: string, change: Partial<ReadLog> | null): void;
}

const BEGUN: ReadLog = { name: '', share: 0, found: null, traffic: null, failed: null, thread: null };

const useLogs = create<Logs>((set) => ({
  bySite: {},
  put: (siteId, change) =>
    set(({ bySite: { [siteId]: old = BEGUN, ...others } }) => ({
      bySite: change ? { ...others, [siteId]: { ...old, ...change } } : others,
    })),
}));

/** The server's log somebody brought for a site, read in a thread of its own. */
export function useLog({ id, origins, settings }: Site) {
  const log = useLogs(({ bySite }) => bySite[id]);
  const put = useLogs((state) => state.put);
  return {
    log,
    read(file: File): void {
      log?.thread?.terminate();
      const thread = new Worker(new URL('./log.worker.ts', import.meta.url), { type: 'module' });
      put(id, { ...BEGUN, name: file.name, thread });
      thread.onmessage = ({ data }: MessageEvent<LogAnswer>) => {
        if (data.kind === 'reading') return put(id, { share: data.share, found: data.found });
        thread.terminate();
        if (data.kind === 'failed') return put(id, { failed: data.why, thread: null });
        put(id, { share: 1, found: data.found, traffic: data.traffic, thread: null });
      };
      thread.onerror = () => put(id, { failed: 'the reader broke off', thread: null });
      const task: LogTask = {
        file,
        hosts: origins.map((origin) => new URL(origin).hostname),
        sessionMinutes: settings.sessionMinutes,
      };
      thread.postMessage(task);
    },
    stop(): void {
      log?.thread?.terminate();
      put(id, null);
    },
  };
}
