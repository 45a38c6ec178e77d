import { useState } from 'react';

interface Typed {
  /** What the field shows. */
  readonly text: string;
  type(text: string): void;
  /** Lets go of this text, or of whatever was typed: what has been typed since stays. */
  letGo(text?: string): void;
}

/** A text of the server that is typed over: it follows that one, but for what is being typed or could not be kept. */
export function useTyped(kept: string): Typed {
  const [typed, setTyped] = useState<string | null>(null);
  return {
    text: typed ?? kept,
    type: setTyped,
    letGo: (text) => setTyped((now) => (text === undefined || now === text ? null : now)),
  };
}
