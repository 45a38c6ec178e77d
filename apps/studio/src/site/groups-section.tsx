import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PageGroup, PageRule } from '@velarium/contract';
import { listOf, pageWords, quantity } from '@velarium/core';
import { useMemo, useState } from 'react';
import { campaignsQuery, groupsQuery, removeGroup, saveGroup } from '../api/queries.ts';
import { useCanEdit } from '../app/use-session.ts';
import { useNames } from '../board/use-names.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { EmptyState, ErrorState, Skeleton } from '../ui/states.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';
import { stillThere } from '../ui/told-error.ts';
import { UNKNOWN_YET } from '../ui/unknown-yet.ts';
import { useOverTheirs } from '../ui/use-over-theirs.ts';
import { RuleList } from './page-rules/rule-list.tsx';
import { useCoveredPages } from './use-site.ts';

/** The site's page groups: named sets of rules that campaigns refer to and follow. */
export function GroupsSection({ siteId }: { readonly siteId: string }) {
  const canEdit = useCanEdit();
  const { data: groups, error, refetch } = useQuery(groupsQuery(siteId));
  const [edited, setEdited] = useState<Partial<PageGroup> | null>(null);
  if (error && !groups) return <ErrorState error={error} onRetry={() => void refetch()} />;
  if (!groups) return <Skeleton rows={3} label="Loading page groups" />;
  return (
    <div className="grid gap-4">
      <div className="flex items-center justify-between gap-4">
        <p className="text-soft">
          A group is changed once and changes in every campaign that names it, drafted or live.
        </p>
        {canEdit && <Button onClick={() => setEdited({ name: '', rules: [] })}>New page group</Button>}
      </div>
      {groups.length === 0 ? (
        <EmptyState title="No page group yet" drawing="sheets">
          Put pages that belong together into a group: every article, the shop, everything about tours.
        </EmptyState>
      ) : (
        <ul aria-label="Page groups" className="border-t border-line">
          {groups.map((group) => (
            <GroupRow
              key={group.id}
              siteId={siteId}
              group={group}
              onEdit={canEdit ? () => setEdited(group) : undefined}
            />
          ))}
        </ul>
      )}
      {edited && <GroupDialog siteId={siteId} group={edited} onClose={() => setEdited(null)} />}
    </div>
  );
}

/** How many of the known pages these rules cover, and how often they are seen. */
function useCovered(siteId: string, rules: readonly PageRule[]) {
  const pages = useMemo(() => ({ include: [...rules], exclude: [], follows: null }), [rules]);
  return useCoveredPages(siteId, pages);
}

interface GroupRowProps {
  readonly siteId: string;
  readonly group: PageGroup;
  readonly onEdit: (() => void) | undefined;
}

function GroupRow({ siteId, group, onEdit }: GroupRowProps) {
  const names = useNames(siteId);
  const covered = useCovered(siteId, group.rules);
  const { data: campaigns = [] } = useQuery(campaignsQuery(siteId));
  const uses = campaigns.filter(({ rule }) =>
    [...rule.reach.pages.include, ...rule.reach.pages.exclude].some(
      (page) => page.kind === 'group' && page.id === group.id,
    ),
  );
  return (
    <li className="grid grid-cols-[1fr_auto] gap-x-6 border-b border-line py-3">
      <div className="min-w-0">
        <h3 className="font-semibold">{group.name}</h3>
        <p className="truncate text-soft">
          {group.rules.length === 0
            ? 'No rule yet'
            : listOf(group.rules.map((rule) => pageWords(rule, names)))}
        </p>
        <p className="text-xs text-soft">
          {covered.isKnown
            ? `${quantity(covered.covered.length, 'page')}, ${covered.views.toLocaleString('en-GB')} views a month`
            : UNKNOWN_YET}
          {uses.length > 0 && ` · used by ${listOf(uses.map(({ name }) => name))}`}
        </p>
      </div>
      {onEdit && <Button onClick={onEdit}>Edit {group.name}</Button>}
    </li>
  );
}

interface GroupDialogProps {
  readonly siteId: string;
  readonly group: Partial<PageGroup>;
  readonly onClose: () => void;
}

function GroupDialog({ siteId, group, onClose }: GroupDialogProps) {
  const queryClient = useQueryClient();
  const [name, setName] = useState(group.name ?? '');
  const [rules, setRules] = useState<readonly PageRule[]>(group.rules ?? []);
  const overTheirs = useOverTheirs<Omit<PageGroup, 'id'>>({ name, rules: group.rules ?? [] });
  const covered = useCovered(siteId, rules);
  const done = () => {
    void queryClient.invalidateQueries({ queryKey: groupsQuery(siteId).queryKey });
    onClose();
  };
  const save = useMutation({
    mutationFn: async () => {
      const mine = { name, rules: rules.filter((rule) => rule.kind !== 'group') };
      if (!group.id) return saveGroup(siteId, mine);
      const { id } = group;
      const next = await overTheirs(mine, groupsQuery(siteId), (groups) => {
        const { id: _, ...there } = stillThere(groups, id, 'group');
        return there;
      });
      return saveGroup(siteId, next, id);
    },
    onSuccess: (saved) => {
      tell(`The group “${saved.name}” is saved.`);
      done();
    },
    onError: tellProblem,
  });
  const remove = useMutation({
    mutationFn: (id: string) => removeGroup(siteId, id),
    onSuccess: done,
    onError: tellProblem,
  });
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title={group.id ? `Page group “${group.name}”` : 'New page group'}
      className="w-[min(92vw,34rem)]"
    >
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Field
          label="Name"
          value={name}
          maxLength={80}
          required
          onChange={(event) => setName(event.target.value)}
        />
        <RuleList
          label="Its pages"
          siteId={siteId}
          rules={rules}
          hasGroups={false}
          onAdd={(rule) => setRules((old) => [...old, rule])}
          onRemove={(at) => setRules((old) => old.filter((_, n) => n !== at))}
          onSet={(at, rule) => setRules((old) => old.map((one, n) => (n === at ? rule : one)))}
        />
        {covered.isKnown && (
          <p aria-live="polite" className="text-soft">
            Covers {quantity(covered.covered.length, 'page')}, {covered.views.toLocaleString('en-GB')} views a
            month.
          </p>
        )}
        <div className="flex justify-end gap-2">
          {group.id && (
            <Button
              tone="quiet"
              className="mr-auto text-halt"
              isBusy={remove.isPending}
              onClick={() => remove.mutate(group.id as string)}
            >
              Remove the group
            </Button>
          )}
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="main" type="submit" disabled={name.trim() === ''} isBusy={save.isPending}>
            Save
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
