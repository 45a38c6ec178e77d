import { expect, it } from 'vitest';
import { PLAIN_LOOK } from '../look/looks.ts';
import { TEMPLATES } from '../templates/templates.ts';
import { charactersOf } from './characters.ts';
import { partsOf } from './needs.ts';

const of = (id: string) => {
  const message = TEMPLATES.find((one) => one.id === id)?.message;
  if (!message) throw new Error(`expected a template ${id}`);
  return { message, parts: partsOf(message, PLAIN_LOOK) };
};

it('are those of its words where nobody adds any, each once', () => {
  const invitation = of('corner-invitation');
  const characters = charactersOf(invitation);
  expect([...new Set(characters)].join('')).toBe(characters);
  for (const block of invitation.message.steps[0]?.blocks ?? [])
    if (block.kind === 'heading') for (const one of block.text) expect(characters).toContain(one);
  for (const other of ['{', 'ß', '\n']) expect(characters).not.toContain(other);
});
it('are those that visitors may write where there is a form', () => {
  const characters = charactersOf(of('sky-letter'));
  for (const one of '@~0Žßé…') expect(characters).toContain(one);
  // From the blank to the tilde, and from the blank that is not broken to the long s, and nothing beside.
  for (const one of [' ', '~', '\u00a0', '\u017f']) expect(characters).toContain(one);
  for (const one of ['\u007f', '\u009f', '\u0180']) expect(characters).not.toContain(one);
});
it('are those of its own words too, in any script', () => {
  expect(charactersOf({ ...of('corner-invitation'), words: { close: 'إغلاق' } })).toContain('غ');
});
