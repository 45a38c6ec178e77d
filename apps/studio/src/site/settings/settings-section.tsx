import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Site, SiteSettings } from '@velarium/contract';
import { siteSettingsSchema } from '@velarium/contract';
import { isSame } from '@velarium/core';
import { useState } from 'react';
import { saveSettings, sitesQuery } from '../../api/queries.ts';
import { useCanEdit } from '../../app/use-session.ts';
import { Button } from '../../ui/button.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';
import { CountrySourceNote } from './country-source-note.tsx';
import { KeptEvents } from './kept-events.tsx';
import { LimitFields } from './limit-fields.tsx';
import { PrivacyFields } from './privacy-fields.tsx';
import { SiteForm } from './site-form.tsx';
import { VisitFields } from './visit-fields.tsx';

/** What holds for every campaign of the site. */
export function SettingsSection({ site }: { readonly site: Site }) {
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const [settings, setSettings] = useState<SiteSettings>(site.settings);
  const set = (change: Partial<SiteSettings>) => setSettings((old) => ({ ...old, ...change }));
  const save = useMutation({
    mutationFn: () => saveSettings(site.id, settings),
    onSuccess: () => {
      void queryClient.invalidateQueries({ queryKey: sitesQuery.queryKey });
      tell('Saved. Every page follows at its next load.');
    },
    onError: tellProblem,
  });
  const fault = siteSettingsSchema.safeParse(settings).error?.issues[0]?.message;
  const isChanged = !isSame(settings, site.settings);
  return (
    <div className="grid max-w-2xl gap-8">
      <SiteForm site={site} />
      <KeptEvents site={site} />
      <form
        className="grid gap-6"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <fieldset disabled={!canEdit} className="grid gap-6">
          <LimitFields settings={settings} set={set} />
          <VisitFields site={site} settings={settings} set={set} />
          <PrivacyFields settings={settings} set={set} />
          <CountrySourceNote />
        </fieldset>
        {canEdit && (
          <div className="sticky bottom-0 flex items-center gap-3 border-t border-line bg-paper py-3">
            <Button
              tone="main"
              type="submit"
              disabled={!isChanged || fault !== undefined}
              isBusy={save.isPending}
            >
              Save
            </Button>
            {isChanged && <Button onClick={() => setSettings(site.settings)}>Take the changes back</Button>}
            <p role="status" className="text-soft">
              {fault ?? (isChanged ? 'Not saved yet.' : 'All saved.')}
            </p>
          </div>
        )}
      </form>
    </div>
  );
}
