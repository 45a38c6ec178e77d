interface Metafile {
  readonly inputs: Readonly<Record<string, unknown>>;
}
export function bundleProgram(name: string): Promise<void>;
export function bundleTag(): Promise<
  Readonly<Record<'tag' | 'renderer' | 'extras' | 'rare' | 'panel', Metafile>>
>;
export function bundleStudio(): Promise<void>;
