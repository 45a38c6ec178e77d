import type { MessageFile } from '@velarium/contract';
import type { BundleName } from '../files.ts';
import type * as Renderer from '../renderer.ts';
import type { SiteScript } from '../site-script.ts';
import type { LoadedParts } from './loaded-parts.ts';

export interface Loaded extends LoadedParts {
  readonly file: MessageFile;
  readonly renderer: typeof Renderer;
}
/** Loads the message whose file has this hash, and the renderer. */
export type Load = (hash: string) => Promise<Loaded>;

/** Loads one of the tag's other bundles. */
export type LoadPart = <Bundle>(name: BundleName) => Promise<Bundle>;

/** Loads each message and the renderer once, and the parts that a message asks for. Failures are not kept, so a later try can succeed. */
export function createLoader(
  { edge, key }: SiteScript,
  loadPart: LoadPart,
  known: Readonly<Record<string, MessageFile>> = {},
): Load {
  const files = new Map<string, Promise<MessageFile>>();
  let renderer: Promise<typeof Renderer> | undefined;
  const fetchMessage = async (hash: string): Promise<MessageFile> => {
    const response = await fetch(`${edge}/tag/${key}/messages/${hash}.json`, { credentials: 'omit' });
    if (!response.ok) throw new Error();
    return response.json();
  };
  return async (hash) => {
    const file = files.get(hash) ?? (known[hash] ? Promise.resolve(known[hash]) : fetchMessage(hash));
    files.set(hash, file);
    renderer ??= loadPart<typeof Renderer>('renderer');
    // Waited for below, unless the message fails first.
    renderer.catch(() => {});
    try {
      const loaded = await file;
      const parts = await Promise.all(loaded.parts.map(loadPart));
      return Object.assign({ file: loaded, renderer: await renderer }, ...parts);
    } catch (error) {
      files.delete(hash);
      renderer = undefined;
      throw error;
    }
  };
}
