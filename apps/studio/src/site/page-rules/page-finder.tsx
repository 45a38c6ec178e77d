import { useQuery } from '@tanstack/react-query';
import type { PageRule, SitePage } from '@velarium/contract';
import { counted, typedPage } from '@velarium/core';
import { Command } from 'cmdk';
import { useMemo, useState } from 'react';
import { groupsQuery, sitePagesQuery } from '../../api/queries.ts';
import { inputClass } from '../../ui/field.tsx';

const SHOWN = 7;

interface Option {
  readonly key: string;
  readonly title: string;
  readonly note: string;
  readonly rule: PageRule;
  /** Lower case, for searching twenty thousand of them at each letter. */
  readonly search: string;
}

const withSearch = (option: Omit<Option, 'search'>): Option => ({
  ...option,
  search: `${option.title} ${option.note}`.toLowerCase(),
});

/** Folders of the site with more than one page, each with what it holds. */
function foldersOf(pages: readonly SitePage[]): Map<string, number> {
  const folders = new Map<string, number>();
  for (const { path } of pages) {
    const parts = path.split('?')[0]?.split('/').slice(1, -1) ?? [];
    parts.forEach((_, n) => {
      const folder = `/${parts.slice(0, n + 1).join('/')}/`;
      folders.set(folder, (folders.get(folder) ?? 0) + 1);
    });
  }
  return folders;
}

/** What adding a typed address means, so that a star or a last slash is no surprise. */
const TYPED_TITLES: Partial<Record<PageRule['kind'], string>> = {
  exact: 'Add this address',
  begins: 'Add all that begins so',
  wildcard: 'Add addresses like this',
};

export interface PageFinderProps {
  readonly siteId: string;
  /** A group holds no other group. */
  readonly hasGroups: boolean;
  readonly named: readonly PageRule[];
  readonly onAdd: (rule: PageRule) => void;
  readonly onRemoveLast: () => void;
}

/** Names pages by part of their title or path, whole folders, groups and kinds; or an address nobody has seen yet. */
const NO_PAGES: readonly SitePage[] = [];

export function PageFinder({ siteId, hasGroups, named, onAdd, onRemoveLast }: PageFinderProps) {
  const { data: pages = NO_PAGES, isPending, error } = useQuery(sitePagesQuery(siteId));
  const { data: groups } = useQuery(groupsQuery(siteId));
  const [words, setWords] = useState('');
  const [isOpen, setOpen] = useState(false);
  const all = useMemo((): Option[] => {
    const kinds = new Map<string, number>();
    for (const { kind } of pages) if (kind) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
    const options: Omit<Option, 'search'>[] = [
      ...pages.map(({ path, title }) => ({
        key: `page ${path}`,
        title,
        note: path,
        rule: { kind: 'exact' as const, address: path },
      })),
      ...[...foldersOf(pages)].map(([folder, count]) => ({
        key: `folder ${folder}`,
        title: `Everything under ${folder}`,
        note: counted(count, 'page'),
        rule: { kind: 'begins' as const, address: folder },
      })),
      ...(hasGroups ? (groups ?? []) : []).map(({ id, name }) => ({
        key: `group ${id}`,
        title: `Group: ${name}`,
        note: 'page group',
        rule: { kind: 'group' as const, id },
      })),
      ...[...kinds].map(([name, count]) => ({
        key: `kind ${name}`,
        title: `Every page of the kind “${name}”`,
        note: `${count} now, later ones too`,
        rule: { kind: 'pageKind' as const, name },
      })),
    ];
    return options.map(withSearch);
  }, [pages, groups, hasGroups]);
  const wanted = words.trim().toLowerCase();
  const taken = new Set(named.map((rule) => JSON.stringify(rule)));
  const found: Option[] = [];
  for (const option of isOpen ? all : []) {
    if (found.length === SHOWN) break;
    if (option.search.includes(wanted) && !taken.has(JSON.stringify(option.rule))) found.push(option);
  }
  const typed = words.trim();
  const written = isOpen && !all.some(({ note }) => note === typed) ? typedPage(typed) : undefined;
  const options: Option[] = [
    ...found,
    ...(written
      ? [{ key: 'typed', title: TYPED_TITLES[written.kind] ?? '', note: typed, rule: written, search: '' }]
      : []),
  ];
  return (
    <div>
      <Command shouldFilter={false} label="Find a page by title or path" loop className="relative">
        <Command.Input
          value={words}
          onValueChange={(next) => {
            setWords(next);
            setOpen(true);
          }}
          onFocus={() => setOpen(true)}
          onBlur={() => setOpen(false)}
          placeholder="Part of a title or path"
          className={inputClass}
          onKeyDown={(event) => {
            if (event.key === 'Backspace' && words === '') onRemoveLast();
            else if (event.key === 'ArrowDown') setOpen(true);
            else if (event.key === 'Escape' && isOpen) {
              // The list goes first; what it stands in stays.
              event.stopPropagation();
              setOpen(false);
            }
          }}
        />
        <Command.List
          hidden={!isOpen || options.length === 0}
          label="Pages of the site"
          // Over what follows, so that nothing moves under a pointer; a press in it keeps the focus in the field.
          onMouseDown={(event) => event.preventDefault()}
          className="absolute inset-x-0 top-full z-20 mt-1 max-h-52 overflow-y-auto rounded-md border border-line bg-sheet p-1 shadow-float"
        >
          {options.map(({ key, title, note, rule }) => (
            <Command.Item
              key={key}
              value={key}
              onSelect={() => {
                onAdd(rule);
                setWords('');
                setOpen(false);
              }}
              className="flex cursor-pointer items-baseline gap-2 rounded px-2 py-1 data-[selected=true]:bg-sail-wash"
            >
              <span className="shrink-0">{title}</span>
              <span className="ml-auto min-w-0 truncate text-xs text-soft">{note}</span>
            </Command.Item>
          ))}
        </Command.List>
      </Command>
      {isOpen && options.length === 0 && (
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
