import type { MessageFile } from '@velarium/contract';
import type { LoadPart } from '../files.ts';
import type * as Renderer from '../renderer.ts';
import type { LoadedParts } from './loaded-parts.ts';

export interface Loaded extends LoadedParts {
  readonly file: MessageFile;
  readonly renderer: typeof Renderer;
}
/** Loads the message whose file has this hash, and the renderer. */
export type Load = (hash: string) => Promise<Loaded>;

/**
 * Loads each message and the renderer once, and the parts that a message asks for. Failures are not kept, so a later try can
 * succeed; a message that `fetchMessage` has not is one.
 */
export function createLoader(
  loadPart: LoadPart,
  fetchMessage: (hash: string) => Promise<MessageFile | undefined>,
): Load {
  const files = new Map<string, Promise<MessageFile | undefined>>();
  let renderer: Promise<typeof Renderer> | undefined;
  return async (hash) => {
    const file = files.get(hash) ?? fetchMessage(hash);
    files.set(hash, file);
    renderer ??= loadPart<typeof Renderer>('renderer');
    // Waited for below, unless the message fails first.
    renderer.catch(() => {});
    try {
      const loaded = (await file) as MessageFile;
      const parts = await Promise.all(loaded.parts.map(loadPart));
      return Object.assign({ file: loaded, renderer: await renderer }, ...parts);
    } catch (error) {
      files.delete(hash);
      renderer = undefined;
      throw error;
    }
  };
}
