/** Entry of the bundle for what few sites use. */
export { RARE } from '@velarium/core/rare';
export { onExitByTouch } from './observe/exit-touch.ts';
export { giveConsent } from './store/give-consent.ts';
export { shareSession } from './store/share-session.ts';
