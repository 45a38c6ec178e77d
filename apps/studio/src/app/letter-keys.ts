import { create } from 'zustand';
import { keepChoice, keptChoice } from '../ui/kept-choice.ts';
import { tell } from '../ui/toast.tsx';

const KEPT = 'velarium:letter-keys';

interface LetterKeys {
  readonly isOn: boolean;
  turn(isOn: boolean): void;
}

const isKept = (): boolean => keptChoice(KEPT) !== 'off';

/**
 * Whether a letter, digit or sign alone runs a command, in this browser. Whoever speaks to the computer, or often touches
 * a key unmeant, must be able to turn that off: WCAG 2.2, success criterion 2.1.4.
 */
export const useLetterKeys = create<LetterKeys>((set) => ({
  isOn: isKept(),
  turn(isOn) {
    keepChoice(KEPT, isOn ? 'on' : 'off');
    set({ isOn });
  },
}));

// In every window of this browser at once.
addEventListener('storage', ({ key }) => {
  if (key === KEPT || key === null) useLetterKeys.setState({ isOn: isKept() });
});

export const isLetterKey = (keys: string): boolean => keys.length === 1;

/** The command that turns them off, or on again. */
export function useLetterKeysTurn() {
  const { isOn, turn } = useLetterKeys();
  return {
    label: `Turn one-letter keys ${isOn ? 'off' : 'on'}`,
    turn() {
      turn(!isOn);
      tell(
        isOn
          ? 'One-letter keys are off in this browser. Keys with Ctrl stay.'
          : 'One-letter keys are on in this browser.',
        undefined,
        KEPT,
      );
    },
  };
}
