import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { browsersOrigin, type SaveSite, type Site, saveSiteSchema } from '@velarium/contract';
import { isSame } from '@velarium/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { createSite, putSite, saveSite, sessionQuery, siteNow, sitesQuery } from '../../api/queries.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Field } from '../../ui/field.tsx';
import { TextArea } from '../../ui/text-area.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';
import { type Changes, CONTESTED, notSavedWords, useDraft } from '../../ui/use-draft.ts';

interface SiteFieldsProps {
  readonly value: SaveSite;
  readonly onChange: (value: SaveSite) => void;
}

/** What is wrong with a site's particulars, by field; of several addresses with the one that is meant. */
function faultsOf(value: SaveSite): Partial<Record<keyof SaveSite, string>> {
  const read = saveSiteSchema.safeParse(value);
  if (read.success) return {};
  return Object.fromEntries(
    read.error.issues.map(({ path: [field, line], message }) => [
      field,
      typeof line === 'number' ? `“${value.origins[line]}”: ${message}` : message,
    ]),
  );
}

function SiteFields({ value, onChange }: SiteFieldsProps) {
  const faults = faultsOf(tidy(value));
  return (
    <>
      <Field
        label="Name"
        value={value.name}
        maxLength={120}
        onChange={(event) => onChange({ ...value, name: event.target.value })}
      />
      <TextArea
        label="Addresses it lives at, one a line"
        value={value.origins.join('\n')}
        hint="Only these may use its tag. Pages are read from the first."
        error={value.origins.some(Boolean) ? faults.origins : undefined}
        onChange={(event) => onChange({ ...value, origins: event.target.value.split('\n') })}
      />
      <Field
        label="Time zone"
        list="velarium-zones"
        value={value.timeZone}
        error={value.timeZone ? faults.timeZone : undefined}
        onChange={(event) => onChange({ ...value, timeZone: event.target.value })}
      />
      <datalist id="velarium-zones">
        {Intl.supportedValuesOf('timeZone').map((zone) => (
          <option key={zone} value={zone} />
        ))}
      </datalist>
    </>
  );
}

const tidy = (value: SaveSite): SaveSite => ({
  ...value,
  origins: value.origins.map((one) => browsersOrigin(one.trim())).filter(Boolean),
});
const particularsOf = ({ name, origins, timeZone }: Site): SaveSite => ({ name, origins, timeZone });
const isOwner = (role: string | undefined) => role === 'owner';

/** The site's name, addresses and time zone; the owner's to change. */
export function SiteForm({ site }: { readonly site: Site }) {
  const queryClient = useQueryClient();
  const { data: session } = useQuery(sessionQuery);
  const kept = particularsOf(site);
  const draft = useDraft(`site.${site.id}`, kept);
  const { value } = draft;
  const save = useMutation({
    mutationFn: async (_: Changes<SaveSite> | null) => {
      const next = draft.over(particularsOf(await siteNow(queryClient, site.id)));
      return next && saveSite(site.id, tidy(next));
    },
    onSuccess: (saved, sent) => {
      if (!saved) return tell(CONTESTED);
      putSite(queryClient, saved);
      draft.settle(sent);
      tell('Saved.');
    },
    onError: tellProblem,
  });
  const isChanged = !isSame(tidy(value), kept);
  const isWrong = Object.keys(faultsOf(tidy(value))).length > 0;
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(draft.changes);
      }}
    >
      <h2 className="font-serif text-xl">The site</h2>
      <fieldset disabled={!isOwner(session?.role)} className="grid gap-3">
        <SiteFields value={value} onChange={draft.set} />
      </fieldset>
      {isOwner(session?.role) ? (
        <div className="flex flex-wrap items-center gap-3">
          <Button type="submit" disabled={!isChanged || isWrong} isBusy={save.isPending}>
            Save the site
          </Button>
          {isChanged && <Button onClick={draft.takeBack}>Take the changes back</Button>}
          {isChanged && (
            <p role="status" className="text-soft">
              {notSavedWords(draft.isContested)}
            </p>
          )}
        </div>
      ) : (
        <p className="text-soft">Changing this takes the role owner.</p>
      )}
    </form>
  );
}

/** Adds a site to the workspace and leads to where its tag is explained. */
export function AddSiteDialog({ onClose }: { readonly onClose: () => void }) {
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const [value, setValue] = useState<SaveSite>({
    name: '',
    origins: [''],
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  });
  const create = useMutation({
    mutationFn: () => createSite(tidy(value)),
    onSuccess: async (site) => {
      await queryClient.invalidateQueries({ queryKey: sitesQuery.queryKey });
      onClose();
      navigate(`/sites/${site.id}/site`);
    },
    onError: tellProblem,
  });
  return (
    <Dialog isOpen onClose={onClose} title="Add a site" className="w-[min(92vw,30rem)]">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          create.mutate();
        }}
      >
        <SiteFields value={value} onChange={setValue} />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Cancel</Button>
          <Button
            tone="main"
            type="submit"
            disabled={Object.keys(faultsOf(tidy(value))).length > 0}
            isBusy={create.isPending}
          >
            Add the site
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
