import { useQuery } from '@tanstack/react-query';
import { type Site, siteSettingsSchema } from '@velarium/contract';
import { counted } from '@velarium/core';
import { parametersQuery } from '../../api/queries.ts';
import { Button } from '../../ui/button.tsx';
import { CheckedField } from '../../ui/checked-field.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Switch } from '../../ui/switch.tsx';
import { NamesArea } from './names-area.tsx';
import type { SettingFields } from './setting-fields.ts';

/** The site's own host without a `www.`; a first guess. */
const domainOf = ({ origins }: Site) =>
  (origins[0] ?? '').replace(/^https?:\/\/(www\.)?/, '').replace(/:\d+$/, '') || 'example.org';

/** How visits, pages and devices are told apart. */
export function VisitFields({ site, settings, set }: SettingFields & { readonly site: Site }) {
  return (
    <section className="grid gap-3">
      <h2 className="font-serif text-xl">Visits and devices</h2>
      <div className="grid grid-cols-3 gap-3">
        <NumberField
          label="A session ends after"
          unit="min"
          value={settings.sessionMinutes}
          min={5}
          max={240}
          onChange={(sessionMinutes) => set({ sessionMinutes })}
        />
        <NumberField
          label="A phone is narrower than"
          unit="px"
          value={settings.breakpoints.mobile}
          min={320}
          max={2000}
          onChange={(mobile) => set({ breakpoints: { ...settings.breakpoints, mobile } })}
        />
        <NumberField
          label="A tablet is narrower than"
          unit="px"
          value={settings.breakpoints.tablet}
          min={320}
          max={2000}
          onChange={(tablet) => set({ breakpoints: { ...settings.breakpoints, tablet } })}
        />
      </div>
      <NamesArea
        label="Parameters that never tell pages apart, one a line"
        value={settings.trackingParameters}
        onChange={(trackingParameters) => set({ trackingParameters })}
      />
      <NamesArea
        label="Parameters that tell pages of one path apart, one a line"
        value={settings.pageParameters}
        onChange={(pageParameters) => set({ pageParameters })}
      />
      <ParametersSeen
        siteId={site.id}
        taken={settings.pageParameters}
        onTake={(name) => set({ pageParameters: [...settings.pageParameters, name] })}
      />
      <Switch
        label="A fragment is a page of its own"
        hint="For sites that keep their pages behind a #."
        isOn={settings.hashRoutes}
        onChange={(hashRoutes) => set({ hashRoutes })}
      />
      <Switch
        label="Subdomains share a session"
        hint="One visit across shop., tours. and www. is one visitor with one memory."
        isOn={settings.sharedDomain !== null}
        onChange={(is) => set({ sharedDomain: is ? domainOf(site) : null })}
      />
      {settings.sharedDomain !== null && (
        <CheckedField
          label="The domain they share"
          value={settings.sharedDomain}
          faultOf={(text) => siteSettingsSchema.shape.sharedDomain.safeParse(text).error?.issues[0]?.message}
          onChange={(sharedDomain) => set({ sharedDomain })}
        />
      )}
      <Switch
        label="Messages may open in frames of the site’s own pages"
        hint="Off: the page around a frame has the word, and nothing opens inside. On: both open messages, one at a time. Frames from another address of the site always rest."
        isOn={settings.worksInFrames ?? false}
        onChange={(is) => set({ worksInFrames: is || undefined })}
      />
    </section>
  );
}

interface ParametersSeenProps {
  readonly siteId: string;
  readonly taken: readonly string[];
  readonly onTake: (name: string) => void;
}

/** Parameters that visited addresses had, to choose from. */
function ParametersSeen({ siteId, taken, onTake }: ParametersSeenProps) {
  const { data: seen = [] } = useQuery(parametersQuery(siteId));
  const left = seen.filter(({ name }) => !taken.includes(name));
  if (left.length === 0) return null;
  return (
    <div className="grid gap-1">
      <p className="text-soft">
        Seen in addresses in the last week. One that leads to another page, such as a date, belongs above;
        from then on its pages are counted apart.
      </p>
      <ul className="flex flex-wrap gap-1.5">
        {left.map(({ name, views, values }) => (
          <li key={name}>
            <Button className="h-7" onClick={() => onTake(name)}>
              {name}{' '}
              <span className="text-soft">{`${counted(values, 'value')} in ${counted(views, 'page view')}`}</span>
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
