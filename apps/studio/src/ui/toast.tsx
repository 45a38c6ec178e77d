import { Toaster as Sonner, toast } from 'sonner';
import { problemWords } from '../api/client.ts';
import { TOLD_OVER } from './dialog.tsx';

export function Toaster() {
  return (
    <div {...TOLD_OVER}>
      <Sonner
        position="bottom-center"
        // Beside each other: what lies under another cannot be pressed.
        expand
        // Over what is open and stays; never over a menu or a choice that somebody opens after it came.
        style={{ fontFamily: 'inherit', zIndex: 45 }}
        toastOptions={{
          unstyled: true,
          classNames: {
            toast: 'flex w-full items-center gap-4 rounded-md bg-ink px-4 py-3 text-sheet shadow-float',
            // Over a dialog nothing else of it: what lies under it there is pressed through it.
            actionButton:
              'pointer-events-auto ml-auto min-h-6 shrink-0 px-1 font-semibold underline underline-offset-4',
          },
        }}
      />
    </div>
  );
}

/**
 * Says that something was done, with its undo where there is one. What is said later of the same takes its place: an older
 * undo would take back what came after it.
 */
export function tell(words: string, undo?: () => void, ofWhat?: string): void {
  tellOf(words, undo && { label: 'Undo', onClick: undo }, ofWhat);
}

/** Says that something was done, with what one may want to do next. */
export function tellOf(
  words: string,
  action?: { readonly label: string; readonly onClick: () => void },
  ofWhat?: string,
): void {
  toast(words, {
    ...(action ? { action, duration: 8000 } : { action: undefined }),
    ...(ofWhat === undefined ? {} : { id: ofWhat }),
  });
}

export function tellProblem(error: unknown): void {
  const { title, detail } = problemWords(error);
  toast(`${title}. ${detail}`, { duration: 10_000 });
}
