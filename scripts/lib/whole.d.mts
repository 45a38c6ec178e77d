export type Ports = Readonly<Record<'studio' | 'edge' | 'fell' | 'skerry' | 'standins' | 'smtp', number>>;
export interface Whole {
  readonly pids: readonly number[];
  readonly ended: Promise<unknown>;
  stop(): Promise<void>;
}
export function startWhole(options: {
  databaseUrl: string;
  home: string;
  ports: Ports;
  env?: Readonly<Record<string, string>>;
}): Promise<Whole>;
