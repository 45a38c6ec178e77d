import { useState } from 'react';

/**
 * What stands in a field: what is typed, until its value becomes another. It follows in the same render, so that what is typed
 * the moment after is not written over.
 */
export function useFieldText(value: string): readonly [text: string, setText: (text: string) => void] {
  const [text, setText] = useState(value);
  const [over, setOver] = useState(value);
  if (over !== value) {
    setOver(value);
    setText(value);
  }
  return [text, setText];
}
