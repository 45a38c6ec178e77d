import { useQuery } from '@tanstack/react-query';
import type { PageRule, Pages } from '@velarium/contract';
import { pageAddressSchema } from '@velarium/contract';
import { Command } from 'cmdk';
import { X } from 'lucide-react';
import { useState } from 'react';
import { sitePagesQuery } from '../../api/queries.ts';
import { IconButton } from '../../ui/button.tsx';
import { inputClass } from '../../ui/field.tsx';
import { useWorkbench, useWorkbenchStore } from '../store.ts';
import { Choice } from './choice.tsx';

type Mode = 'everywhere' | 'but' | 'only';

const modeOf = ({ include, exclude }: Pages): Mode =>
  include.some((page) => page.kind === 'every') ? (exclude.length > 0 ? 'but' : 'everywhere') : 'only';

const EVERY: PageRule = { kind: 'every' };
const addressesOf = (rules: readonly PageRule[]) =>
  rules.flatMap((page) => (page.kind === 'exact' ? [page.address] : []));
const exact = (addresses: readonly string[]): PageRule[] =>
  addresses.map((address) => ({ kind: 'exact', address }));

/** Everywhere, everywhere but some, or only some pages. */
export function PagesControl() {
  const { editRule } = useWorkbenchStore().getState();
  const pages = useWorkbench((state) => state.document.rule.reach.pages);
  // Choosing "everywhere but" names no page yet, which the rule itself cannot tell from "everywhere".
  const [wanted, setWanted] = useState<Mode>(modeOf(pages));
  const mode = modeOf(pages) === 'everywhere' && wanted === 'but' ? 'but' : modeOf(pages);
  const named = addressesOf(mode === 'only' ? pages.include : pages.exclude);
  const setPages = (next: Pages) =>
    editRule(
      (rule) => ({ ...rule, reach: { ...rule.reach, pages: next } }),
      `pages.${next.include.length}.${next.exclude.length}`,
    );
  const choose = (next: Mode) => {
    setWanted(next);
    if (next === 'everywhere') setPages({ include: [EVERY], exclude: [] });
    if (next === 'but') setPages({ include: [EVERY], exclude: exact(named) });
    if (next === 'only') setPages({ include: exact(named), exclude: [] });
  };
  const name = (addresses: readonly string[]) =>
    setPages(
      mode === 'only'
        ? { include: exact(addresses), exclude: [] }
        : { include: [EVERY], exclude: exact(addresses) },
    );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
      <Choice
        label="Pages"
        value={mode}
        onChange={choose}
        options={[
          { value: 'everywhere', label: 'Everywhere' },
          { value: 'but', label: 'Everywhere but …' },
          { value: 'only', label: 'Only on …' },
        ]}
      />
      {mode !== 'everywhere' && <PagePicker named={named} onChange={name} />}
    </div>
  );
}

const SHOWN = 7;

interface PagePickerProps {
  readonly named: readonly string[];
  readonly onChange: (addresses: readonly string[]) => void;
}

/** Names pages by part of their title or path, or by an address the site's list does not know. */
function PagePicker({ named, onChange }: PagePickerProps) {
  const siteId = useWorkbench((state) => state.siteId);
  const { data: known = [], isPending, error } = useQuery(sitePagesQuery(siteId));
  const [words, setWords] = useState('');
  const wanted = words.trim().toLowerCase();
  const found = known.filter(
    ({ path, title }) => !named.includes(path) && `${title} ${path}`.toLowerCase().includes(wanted),
  );
  const typed = words.trim();
  const isNew =
    pageAddressSchema.safeParse(typed).success &&
    !known.some(({ path }) => path === typed) &&
    !named.includes(typed);
  const options = [
    ...found.slice(0, SHOWN).map(({ path, title }) => ({ address: path, title })),
    ...(isNew ? [{ address: typed, title: 'Add this address' }] : []),
  ];
  const add = (address: string) => {
    onChange([...named, address]);
    setWords('');
  };
  const titleOf = (address: string) => known.find(({ path }) => path === address)?.title;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-2">
      {named.length > 0 && (
        <ul aria-label="Chosen pages" className="grid gap-px">
          {named.map((address) => (
            <li key={address} className="flex items-center gap-2 border-b border-line bg-sheet px-2">
              <span className="min-w-0 flex-1 truncate py-1.5">
                {titleOf(address) ?? address}
                {titleOf(address) && <span className="ml-2 text-xs text-soft">{address}</span>}
              </span>
              <IconButton
                label={`Take out ${titleOf(address) ?? address}`}
                className="size-6"
                onClick={() => onChange(named.filter((one) => one !== address))}
              >
                <X size={13} aria-hidden />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      <Command shouldFilter={false} label="Find a page by title or path" loop>
        <Command.Input
          value={words}
          onValueChange={setWords}
          placeholder="Part of a title or path"
          className={inputClass}
          onKeyDown={(event) => {
            if (event.key === 'Backspace' && words === '' && named.length > 0) onChange(named.slice(0, -1));
          }}
        />
        <Command.List label="Pages of the site" className="mt-2 max-h-52 overflow-auto">
          {options.map(({ address, title }) => (
            <Command.Item
              key={address}
              value={address}
              onSelect={() => add(address)}
              className="flex cursor-pointer items-baseline gap-2 rounded px-2 py-1 data-[selected=true]:bg-sail-wash"
            >
              <span className="shrink-0">{title}</span>
              <span className="ml-auto min-w-0 truncate text-xs text-soft">{address}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
      {options.length === 0 && (
        <p className="text-xs text-soft">
          {isPending
            ? 'Loading the site’s pages …'
            : error
              ? 'The site’s pages could not be loaded. Type a whole path instead.'
              : 'No page like that. Type a whole path, beginning with /, to name one anyway.'}
        </p>
      )}
    </div>
  );
}
