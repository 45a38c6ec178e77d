import { Tabs as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Tab {
  readonly id: string;
  readonly label: string;
  readonly content: ReactNode;
}

export function Tabs({ label, tabs }: { readonly label: string; readonly tabs: readonly Tab[] }) {
  return (
    <Radix.Root defaultValue={tabs[0]?.id ?? ''}>
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
