interface Metafile {
  readonly inputs: Readonly<Record<string, unknown>>;
}
export function bundleProgram(name: string): Promise<void>;
export function bundleTag(): Promise<{ tag: Metafile; renderer: Metafile; extras: Metafile }>;
export function bundleStudio(): Promise<void>;
