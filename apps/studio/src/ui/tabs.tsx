import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';
import { useSearchParams } from 'react-router';

export interface Tab {
  readonly id: string;
  readonly label: string;
  readonly content: ReactNode;
}

/** Parts of a place; which one is open stands in the address, so that a link can lead to it and a reload keeps it. */
export function Tabs({ label, tabs }: { readonly label: string; readonly tabs: readonly Tab[] }) {
  const [search, setSearch] = useSearchParams();
  const first = tabs[0]?.id ?? '';
  const asked = search.get('tab');
  const open = (id: string) =>
    setSearch(
      (old) => {
        const next = new URLSearchParams(old);
        if (id === first) next.delete('tab');
        else next.set('tab', id);
        return next;
      },
      { replace: true },
    );
  return (
    <Radix.Root value={tabs.some(({ id }) => id === asked) ? (asked as string) : first} onValueChange={open}>
      <Radix.List
        aria-label={label}
        className="flex gap-6 overflow-x-auto overflow-y-hidden border-b border-line whitespace-nowrap"
      >
        {tabs.map(({ id, label: name }) => (
          <Radix.Trigger
            key={id}
            value={id}
            className="-mb-px border-b-2 border-transparent pb-2 text-soft data-[state=active]:border-sail data-[state=active]:text-ink"
          >
            {name}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {tabs.map(({ id, content }) => (
        <Radix.Content key={id} value={id} className="pt-5">
          {content}
        </Radix.Content>
      ))}
    </Radix.Root>
  );
}
