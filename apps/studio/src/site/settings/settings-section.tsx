import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Site, SiteSettings } from '@velarium/contract';
import { siteSettingsSchema } from '@velarium/contract';
import { putSite, saveSettings, siteNow } from '../../api/queries.ts';
import { useCanEdit } from '../../app/use-session.ts';
import { Button } from '../../ui/button.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';
import { type Changes, CONTESTED, notSavedWords, useDraft } from '../../ui/use-draft.ts';
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
  const draft = useDraft(`settings.${site.id}`, site.settings);
  const settings = draft.value;
  const set = (change: Partial<SiteSettings>) => draft.set({ ...settings, ...change });
  const save = useMutation({
    mutationFn: async (_: Changes<SiteSettings> | null) => {
      const next = draft.over((await siteNow(queryClient, site.id)).settings);
      return next && saveSettings(site.id, next);
    },
    onSuccess: (saved, sent) => {
      if (!saved) return tell(CONTESTED);
      putSite(queryClient, saved);
      draft.settle(sent);
      tell('Saved. Every page follows at its next load.');
    },
    onError: tellProblem,
  });
  const fault = siteSettingsSchema.safeParse(settings).error?.issues[0]?.message;
  return (
    <div className="grid max-w-2xl gap-8">
      <SiteForm site={site} />
      <KeptEvents site={site} />
      <form
        className="grid gap-6"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate(draft.changes);
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
              disabled={!draft.isChanged || fault !== undefined}
              isBusy={save.isPending}
            >
              Save
            </Button>
            {draft.isChanged && <Button onClick={draft.takeBack}>Take the changes back</Button>}
            <p role="status" className="text-soft">
              {fault ?? (draft.isChanged ? notSavedWords(draft.isContested) : 'All saved.')}
            </p>
          </div>
        )}
      </form>
    </div>
  );
}
