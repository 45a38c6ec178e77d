import type { Audience, Condition } from '@velarium/contract';
import { conditionWords } from '@velarium/core';
import { X } from 'lucide-react';
import { useNames } from '../../../board/use-names.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Menu } from '../../../ui/menu.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';
import { AudienceShare } from './audience-share.tsx';
import { ConditionFields } from './condition-fields.tsx';
import { CONDITION_KINDS } from './condition-kinds.ts';

type Group = Audience['groups'][number];
const KINDS = Object.keys(CONDITION_KINDS) as Condition['kind'][];
const MOST_GROUPS = 8;
const MOST_ITEMS = 12;

/** For whom it opens: conditions in groups; all of them or any, each of them or not. */
export function AudienceControl() {
  const store = useWorkbenchStore();
  const audience = useWorkbench((state) => state.document.rule.reach.audience);
  const set = (next: Audience | null, key: string) =>
    store
      .getState()
      .editRule((rule) => ({ ...rule, reach: { ...rule.reach, audience: next } }), `audience.${key}`);
  const newGroup = (kind: Condition['kind']): Group => ({
    not: false,
    match: 'all',
    items: [{ not: false, condition: CONDITION_KINDS[kind].beginning }],
  });
  if (audience === null) {
    return (
      <fieldset className="grid justify-items-start gap-2">
        <legend className="mb-1 font-medium">Audience</legend>
        <p className="text-soft">Everybody who comes to these pages on these devices.</p>
        <AddMenu
          label="Only for some"
          onAdd={(kind) => set({ match: 'all', groups: [newGroup(kind)] }, 'begin')}
        />
      </fieldset>
    );
  }
  const setGroup = (at: number, group: Group | null, key: string) => {
    const groups = audience.groups.flatMap((old, n) => (n !== at ? old : (group ?? [])));
    set(groups.length === 0 ? null : { ...audience, groups }, `${at}.${key}`);
  };
  return (
    <fieldset className="grid gap-3">
      <legend className="mb-1 font-medium">Audience</legend>
      {audience.groups.length > 1 && (
        <Segments
          label="A visitor must be in"
          value={audience.match}
          onChange={(match) => set({ ...audience, match }, 'match')}
          options={[
            { value: 'all', label: 'All groups' },
            { value: 'any', label: 'Any group' },
          ]}
        />
      )}
      {audience.groups.map((group, at) => (
        <GroupFields
          // biome-ignore lint/suspicious/noArrayIndexKey: groups have no name of their own but where they stand.
          key={at}
          group={group}
          number={at + 1}
          onChange={(next, key) => setGroup(at, next, key)}
        />
      ))}
      {audience.groups.length < MOST_GROUPS && (
        <AddMenu
          label="Another group"
          onAdd={(kind) =>
            set({ ...audience, groups: [...audience.groups, newGroup(kind)] }, `add.${Date.now()}`)
          }
        />
      )}
      <AudienceShare />
    </fieldset>
  );
}

interface GroupFieldsProps {
  readonly group: Group;
  readonly number: number;
  readonly onChange: (group: Group | null, key: string) => void;
}

function GroupFields({ group, number, onChange }: GroupFieldsProps) {
  const names = useNames(useWorkbench((state) => state.siteId));
  const setItem = (at: number, item: Group['items'][number] | null, key: string) => {
    const items = group.items.flatMap((old, n) => (n !== at ? old : (item ?? [])));
    onChange(items.length === 0 ? null : { ...group, items }, `${at}.${key}`);
  };
  return (
    <section aria-label={`Group ${number}`} className="grid gap-2 rounded border border-line bg-sheet p-2.5">
      {group.items.length > 1 && (
        <Segments
          label="Of these"
          value={group.match}
          onChange={(match) => onChange({ ...group, match }, 'match')}
          options={[
            { value: 'all', label: 'All' },
            { value: 'any', label: 'Any' },
          ]}
        />
      )}
      <ul className="grid gap-1">
        {group.items.map((item, at) => {
          const words = conditionWords(item.condition, names);
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: conditions have no name of their own.
            <li key={`${item.condition.kind}-${at}`} className="relative">
              <details open={group.items.length === 1}>
                <summary className="flex min-h-7 list-none items-center gap-2 rounded pr-8 pl-1 hover:bg-sail-wash [&::-webkit-details-marker]:hidden">
                  <span className="min-w-0 flex-1">
                    {item.not && <strong className="font-semibold">not </strong>}
                    {words}
                  </span>
                </summary>
                <div className="grid gap-2 px-1 pt-1 pb-2">
                  <ConditionFields
                    condition={item.condition}
                    onChange={(condition) => setItem(at, { ...item, condition }, 'set')}
                  />
                  <Switch
                    label="The opposite of this"
                    isOn={item.not}
                    onChange={(not) => setItem(at, { ...item, not }, 'not')}
                  />
                </div>
              </details>
              <IconButton
                label={`Remove: ${words}`}
                className="absolute top-0.5 right-0"
                onClick={() => setItem(at, null, 'remove')}
              >
                <X size={13} aria-hidden />
              </IconButton>
            </li>
          );
        })}
      </ul>
      <div className="flex items-center gap-2">
        {group.items.length < MOST_ITEMS && (
          <AddMenu
            label="Another condition"
            onAdd={(kind) =>
              onChange(
                {
                  ...group,
                  items: [...group.items, { not: false, condition: CONDITION_KINDS[kind].beginning }],
                },
                `add.${Date.now()}`,
              )
            }
          />
        )}
      </div>
      {(group.items.length > 1 || group.not) && (
        <Switch
          label="The opposite of the whole group"
          isOn={group.not}
          onChange={(not) => onChange({ ...group, not }, 'not')}
        />
      )}
    </section>
  );
}

const AddMenu = ({
  label,
  onAdd,
}: {
  readonly label: string;
  readonly onAdd: (kind: Condition['kind']) => void;
}) => (
  <Menu items={KINDS.map((kind) => ({ label: CONDITION_KINDS[kind].label, onSelect: () => onAdd(kind) }))}>
    <Button className="h-7 justify-self-start">{label}</Button>
  </Menu>
);
