import { useQuery } from '@tanstack/react-query';
import { nightOf } from '@velarium/core';
import { useState } from 'react';
import { looksQuery } from '../../api/library.ts';
import { LookDialog } from '../../library/look-dialog.tsx';
import { Button } from '../../ui/button.tsx';
import { Fold } from '../../ui/fold.tsx';
import { Select } from '../../ui/select.tsx';
import { Switch } from '../../ui/switch.tsx';
import { useWorkbench } from '../store.ts';
import { ColourField, ROLE_WORDS } from './colour-field.tsx';
import { useEditMessage, usePalette } from './use-message.ts';

const SITE = 'site';
const SHOWN = ['surface', 'ink', 'accent', 'accentText', 'backdrop'] as const;

/** Which Look the message follows, and the colours it has of its own. */
export function LookFold() {
  const edit = useEditMessage();
  const siteId = useWorkbench((state) => state.siteId);
  const look = useWorkbench((state) => state.document.message.look);
  const own = useWorkbench((state) => state.document.message.palette);
  const canEdit = useWorkbench((state) => state.canEdit);
  const palette = usePalette();
  const isDark = nightOf(palette) === palette;
  const darkens = useWorkbench((state) => state.document.message.darkens);
  const { data: looks } = useQuery(looksQuery(siteId));
  const [isEditing, setEditing] = useState(false);
  const site = looks?.find(({ isDefault }) => isDefault);
  const followed = looks?.find(({ id }) => id === look) ?? site;
  const count = Object.keys(own).length;
  return (
    <Fold
      title="Look and colours"
      note={`${followed?.name ?? '…'}${count > 0 ? `, ${count} of its own` : ''}`}
      isOpen
    >
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
        <Select
          label="Follows"
          className="grid-cols-1"
          value={look ?? SITE}
          options={[
            { value: SITE, label: `The site’s own${site ? ` (${site.name})` : ''}` },
            ...(looks ?? []).map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(next) => edit({ look: next === SITE ? null : next }, 'look')}
        />
        {canEdit && followed && <Button onClick={() => setEditing(true)}>Edit Looks</Button>}
      </div>
      <div>
        {SHOWN.map((role) => (
          <ColourField
            key={role}
            label={ROLE_WORDS[role]}
            value={own[role]}
            fallback={palette[role]}
            hasRoles={false}
            {...(role === 'ink'
              ? { against: 'surface' as const }
              : role === 'accentText'
                ? { against: 'accent' as const }
                : role === 'surface'
                  ? { against: 'ink' as const }
                  : {})}
            onChange={(colour) => edit({ palette: { ...own, [role]: colour } }, `palette.${role}`)}
          />
        ))}
      </div>
      <Switch
        label="Darkens at night"
        hint={
          isDark
            ? 'These colours are dark already.'
            : 'Where a visitor’s device asks for dark pages. The stage shows it with the key D.'
        }
        isOn={darkens}
        onChange={(is) => edit({ darkens: is }, 'darkens')}
      />
      {count > 0 && (
        <Button className="justify-self-start" onClick={() => edit({ palette: {} }, 'palette.clear')}>
          Take the Look’s colours
        </Button>
      )}
      {isEditing && followed && (
        <LookDialog siteId={siteId} lookId={followed.id} onClose={() => setEditing(false)} />
      )}
    </Fold>
  );
}
