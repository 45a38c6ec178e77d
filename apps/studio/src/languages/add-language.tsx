import { languageTagSchema } from '@velarium/contract';
import { languageName } from '@velarium/core';
import { useId, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { KNOWN_LANGUAGES, tagOf } from './known-languages.ts';

interface AddLanguageProps {
  readonly label: string;
  readonly button: string;
  /** Languages that are there already. */
  readonly taken: readonly string[];
  readonly first?: string;
  readonly hint?: string;
  readonly onAdd: (tag: string) => void;
}

/** A language, by its name or by its tag. */
export function AddLanguage({ label, button, taken, first, hint, onAdd }: AddLanguageProps) {
  const [typed, setTyped] = useState(first ? languageName(first) : '');
  const [fault, setFault] = useState<string>();
  const listId = useId();
  const add = () => {
    const tag = tagOf(typed);
    if (!tag || !languageTagSchema.safeParse(tag).success)
      return setFault('Write a language by its name, or as its tag: cy, pt-BR.');
    if (taken.includes(tag)) return setFault(`${languageName(tag)} is there already.`);
    setTyped('');
    return onAdd(tag);
  };
  return (
    <form
      className="grid justify-items-start gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <Field
        label={label}
        value={typed}
        hint={hint}
        error={fault}
        list={listId}
        autoComplete="off"
        className="w-full max-w-72"
        onChange={(event) => {
          setFault(undefined);
          setTyped(event.target.value);
        }}
      />
      <datalist id={listId}>
        {KNOWN_LANGUAGES.filter(({ tag }) => !taken.includes(tag)).map(({ tag, name }) => (
          <option key={tag} value={name} />
        ))}
      </datalist>
      <Button type="submit" disabled={typed.trim() === ''}>
        {button}
      </Button>
    </form>
  );
}
