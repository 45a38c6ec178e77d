export interface Cluster {
  readonly port: number;
  readonly adminUrl: string;
  readonly url: string;
  readonly urlOf: (database: string) => string;
  stop(): Promise<void>;
}
export function startCluster(options?: { home?: string; isThrowaway?: boolean }): Promise<Cluster>;
