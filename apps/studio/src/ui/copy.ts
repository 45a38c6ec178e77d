import { copyText } from '@velarium/render/copy-text';
import { tell } from './toast.tsx';

/** Copies a text and says so, or how it is had where the browser does not allow it. */
export async function copy(
  text: string,
  {
    said = 'Copied.',
    byHand = 'Select the text and copy it by hand.',
  }: { readonly said?: string; readonly byHand?: string } = {},
): Promise<void> {
  // Whatever has the focus; where a press gives none, that is the page itself.
  const pressed = document.activeElement as HTMLElement;
  tell((await copyText(text, pressed)) ? said : `The browser did not allow copying. ${byHand}`);
}
