/** Entry of the bundle for what few sites use. */

import type { Manifest } from '@velarium/contract';
import { RARE } from '@velarium/core/rare';
import { onExitByTouch } from './observe/exit-touch.ts';
import { underOneFloor } from './page/one-floor.ts';
import { giveConsent } from './store/give-consent.ts';
import { shareSession } from './store/share-session.ts';

export const PART = {
  ...RARE,
  /** In the page's language, else in the visitor's. */
  manifestFor: (visitor: string | null, manifest: Manifest) =>
    RARE.manifestFor(visitor, manifest, [document.documentElement.lang, ...navigator.languages]),
  onExitByTouch,
  underOneFloor,
  giveConsent,
  shareSession,
};
