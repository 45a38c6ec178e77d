export interface Cluster {
  readonly port: number;
  readonly adminUrl: string;
  readonly url: string;
  readonly urlOf: (database: string) => string;
  readonly died: Promise<unknown>;
  restart(): Promise<void>;
  stop(): Promise<void>;
}
export function startCluster(options?: { home?: string; isThrowaway?: boolean }): Promise<Cluster>;
