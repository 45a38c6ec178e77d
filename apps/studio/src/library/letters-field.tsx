import { useQuery } from '@tanstack/react-query';
import { fontSchema, type Letters } from '@velarium/contract';
import { FONTS } from '@velarium/contract/values';
import { firstFamily, fontStack } from '@velarium/core';
import { useState } from 'react';
import { lettersQuery } from '../api/library.ts';
import { Field } from '../ui/field.tsx';
import { Select } from '../ui/select.tsx';

export const KIND_WORDS = {
  sans: 'Plain',
  serif: 'With serifs',
  round: 'Rounded',
  narrow: 'Narrow',
  mono: 'Typewriter',
} as const;
const NAMED = 'named';
const isKind = (font: string): font is keyof typeof KIND_WORDS => font in KIND_WORDS;

/** A family with what stands in for it where it cannot be had. */
const stackOf = ({ family, like }: Letters): string => `"${family}", ${fontStack(like)}`;

export interface LettersFieldProps {
  readonly siteId: string;
  readonly label: string;
  readonly font: string;
  readonly onChange: (font: string) => void;
}

/** What words are set in: a kind that every device has, letters that come with the message, or what its pages are set in. */
export function LettersField({ siteId, label, font, onChange }: LettersFieldProps) {
  const { data: letters = [] } = useQuery(lettersQuery(siteId));
  const loaded = letters.filter(({ from }) => from !== 'pages');
  const chosen = loaded.find(({ family }) => family === firstFamily(font));
  const isNamed = !isKind(font) && !chosen;
  const [typed, setTyped] = useState(isNamed ? font : '');
  const [isTyping, setTyping] = useState(isNamed);
  const fault = fontSchema.safeParse(typed).error?.issues[0]?.message;
  const name = firstFamily(font);
  return (
    <div className="col-span-2 grid content-start gap-1.5">
      <Select
        label={label}
        value={isTyping ? NAMED : (chosen?.id ?? font)}
        options={[
          ...FONTS.map((value) => ({ value: value as string, label: KIND_WORDS[value] })),
          ...loaded.map(({ id, name: called }) => ({ value: id, label: called })),
          { value: NAMED, label: isNamed && name ? `As on the pages: ${name}` : 'As on the pages …' },
        ]}
        onChange={(next) => {
          const own = loaded.find(({ id }) => id === next);
          setTyping(next === NAMED);
          if (own) onChange(stackOf(own));
          else if (next !== NAMED) onChange(next);
          else if (!fault) onChange(typed);
        }}
      />
      {isTyping && (
        <Field
          label={`Families of ${label.toLowerCase()}, as your pages name them`}
          value={typed}
          placeholder="Georgia, serif"
          maxLength={400}
          {...(typed === '' || !fault ? {} : { error: `${fault[0]?.toUpperCase()}${fault.slice(1)}.` })}
          onChange={(event) => {
            setTyped(event.target.value);
            if (fontSchema.safeParse(event.target.value).success) onChange(event.target.value);
          }}
        />
      )}
    </div>
  );
}
