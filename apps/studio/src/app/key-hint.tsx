import { cx } from '../ui/cx.ts';
import { keysWords } from './commands.ts';
import { isLetterKey, useLetterKeys } from './letter-keys.ts';

/** The keys of a command beside its name; nothing where they run nothing. */
export function KeyHint({ keys, className }: { readonly keys: string; readonly className?: string }) {
  const hasLetters = useLetterKeys((store) => store.isOn);
  if (isLetterKey(keys) && !hasLetters) return null;
  return <kbd className={cx('text-xs', className)}>{keysWords(keys)}</kbd>;
}
