import type { ManifestCampaign, Message } from '@velarium/contract';
import type * as Renderer from '../renderer.ts';
import type { SiteScript } from '../site-script.ts';

/** Replaced at build time by the file name of the renderer's bundle, which carries its content hash. */
declare const __RENDERER__: string;

export interface Loaded {
  readonly message: Message;
  readonly show: typeof Renderer.show;
}
export type Load = (campaign: ManifestCampaign) => Promise<Loaded>;

/** Loads a campaign's message and the renderer, each once. Failures are not kept, so a later try can succeed. */
export function createLoader({ edge, key }: SiteScript): Load {
  const messages = new Map<string, Promise<Message>>();
  let renderer: Promise<typeof Renderer> | undefined;
  const fetchMessage = async (hash: string): Promise<Message> => {
    const response = await fetch(`${edge}/tag/${key}/messages/${hash}.json`, { credentials: 'omit' });
    if (!response.ok) throw new Error(String(response.status));
    return response.json();
  };
  return async ({ message: hash }) => {
    const message = messages.get(hash) ?? fetchMessage(hash);
    messages.set(hash, message);
    renderer ??= import(/* @vite-ignore */ `${edge}/tag/${__RENDERER__}`);
    try {
      return { message: await message, show: (await renderer).show };
    } catch (error) {
      messages.delete(hash);
      renderer = undefined;
      throw error;
    }
  };
}
