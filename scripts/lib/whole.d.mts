export type Ports = Readonly<Record<'studio' | 'edge' | 'fell' | 'skerry' | 'standins' | 'smtp', number>>;
export interface Whole {
  readonly pids: readonly number[];
  readonly ended: Promise<unknown>;
  stop(): Promise<void>;
}
export interface Program {
  readonly pid: number;
  readonly ready: Promise<void>;
  readonly ended: Promise<unknown>;
  stop(): Promise<void>;
}
export interface WholeOptions {
  readonly databaseUrl: string;
  readonly home: string;
  readonly ports: Ports;
  readonly env?: Readonly<Record<string, string>>;
}
export function programEnv(options: WholeOptions): Record<string, string>;
export function startOne(
  name: 'server' | 'sites' | 'standins',
  options: Pick<WholeOptions, 'home'>,
  env: Record<string, string>,
  args?: readonly string[],
): Program;
export function startWhole(options: WholeOptions): Promise<Whole>;
