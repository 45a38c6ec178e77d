import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Look, LookStyle, SaveLook } from '@velarium/contract';
import { COLOUR_ROLES, SHADOWS } from '@velarium/contract/values';
import {
  contrastRatio,
  LEAST_TEXT_CONTRAST,
  lookToTokens,
  nearestPassing,
  TEMPLATES,
  TokensError,
  tokensToLook,
} from '@velarium/core';
import { useState } from 'react';
import { HexColorPicker } from 'react-colorful';
import { createLook, looksQuery, makeDefaultLook, removeLook, saveLook } from '../api/library.ts';
import { campaignsQuery } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { ColourText } from '../ui/colour-text.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { NumberField } from '../ui/number-field.tsx';
import { Popover } from '../ui/popover.tsx';
import { saveJson } from '../ui/save-file.ts';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { textOfFile } from '../ui/text-of-file.ts';
import { tell, tellProblem } from '../ui/toast.tsx';
import { type Changes, CONTESTED, notSavedWords, useDraft } from '../ui/use-draft.ts';
import { useFile } from '../ui/use-file.tsx';
import { ROLE_WORDS, Swatch } from '../workbench/message/colour-field.tsx';
import { StageFrame } from '../workbench/stage/stage-frame.tsx';
import { BringLetters } from './bring-letters.tsx';
import { LettersField } from './letters-field.tsx';

const AGAINST: Readonly<Partial<Record<keyof LookStyle['palette'], keyof LookStyle['palette']>>> = {
  surface: 'ink',
  ink: 'surface',
  soft: 'surface',
  accent: 'accentText',
  accentText: 'accent',
  field: 'fieldText',
  fieldText: 'field',
};
const SHADOW_WORDS = { none: 'None', hair: 'A hairline', lifted: 'Lifted', floating: 'Floating' } as const;
const SAMPLE = TEMPLATES.find(({ id }) => id === 'sky-letter')?.message;

export interface LookDialogProps {
  readonly siteId: string;
  readonly lookId: string;
  readonly onClose: () => void;
}

/** The site's Looks: colours with roles, letters, corners, buttons and fields; every message that follows one changes. */
export function LookDialog({ siteId, lookId, onClose }: LookDialogProps) {
  const { data: looks } = useQuery(looksQuery(siteId));
  const [id, setId] = useState(lookId);
  const look = looks?.find((one) => one.id === id) ?? looks?.[0];
  if (!looks || !look) return null;
  return (
    <Dialog isOpen onClose={onClose} title="Looks" className="w-[min(94vw,60rem)]">
      <fieldset className="mb-4 flex flex-wrap gap-1.5">
        <legend className="sr-only">Looks of this site</legend>
        {looks.map((one) => (
          <button
            key={one.id}
            type="button"
            aria-pressed={one.id === look.id}
            onClick={() => setId(one.id)}
            className="flex h-8 items-center gap-2 rounded-full border border-line-strong pr-3 pl-2 hover:border-ink aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-sheet"
          >
            <span className="flex overflow-hidden rounded-full" aria-hidden="true">
              {(['surface', 'accent', 'ink'] as const).map((role) => (
                <span key={role} className="size-4" style={{ background: one.style.palette[role] }} />
              ))}
            </span>
            {one.name}
            {one.isDefault && <span className="text-xs opacity-80">the site’s own</span>}
          </button>
        ))}
      </fieldset>
      <LookEditor key={look.id} siteId={siteId} look={look} count={looks.length} onPick={setId} />
    </Dialog>
  );
}

interface LookEditorProps {
  readonly siteId: string;
  readonly look: Look;
  readonly count: number;
  readonly onPick: (id: string) => void;
}

function LookEditor({ siteId, look, count, onPick }: LookEditorProps) {
  const queryClient = useQueryClient();
  const { data: campaigns } = useQuery(campaignsQuery(siteId));
  const kept: SaveLook = { name: look.name, style: look.style };
  const draft = useDraft(`look.${look.id}`, kept);
  const { name, style } = draft.value;
  const setStyle = (next: LookStyle) => draft.set({ name, style: next });
  const refresh = () => queryClient.invalidateQueries({ queryKey: looksQuery(siteId).queryKey });
  const set = (change: Partial<LookStyle>) => setStyle({ ...style, ...change });
  const running = campaigns?.filter(({ state }) => state === 'running').length ?? 0;

  const save = useMutation({
    mutationFn: async (_: Changes<SaveLook> | null) => {
      const looks = await queryClient.fetchQuery({ ...looksQuery(siteId), staleTime: 0 });
      const now = looks.find(({ id }) => id === look.id) ?? look;
      const next = draft.over({ name: now.name, style: now.style });
      return next && saveLook(siteId, look.id, next);
    },
    onSuccess: (saved, sent) => {
      if (!saved) return tell(CONTESTED);
      queryClient.setQueryData(looksQuery(siteId).queryKey, (all) =>
        all?.map((one) => (one.id === saved.id ? saved : one)),
      );
      draft.settle(sent);
      tell(`“${saved.name}” is saved. Every message that follows it has changed.`);
    },
    onError: tellProblem,
    onSettled: refresh,
  });
  const copy = useMutation({
    mutationFn: () => createLook(siteId, { name: `${name.slice(0, 70)}, copy`, style }),
    onSuccess: async (made) => {
      await refresh();
      onPick(made.id);
    },
    onError: tellProblem,
  });
  const makeOwn = useMutation({
    mutationFn: () => makeDefaultLook(siteId, look.id),
    onSuccess: () => tell(`Messages without a Look of their own follow “${look.name}” now.`),
    onError: tellProblem,
    onSettled: refresh,
  });
  const remove = useMutation({
    mutationFn: () => removeLook(siteId, look.id),
    onError: tellProblem,
    onSettled: refresh,
  });

  const exportTokens = () =>
    saveJson(lookToTokens(name, style), `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.tokens.json`);
  const importTokens = async (chosen: File) => {
    const text = await textOfFile(chosen);
    try {
      const { style: read, used, missing, refused } = tokensToLook(JSON.parse(text), style);
      setStyle(read);
      tell(
        `${used.length} tokens were taken${missing.length > 0 ? `; not in the file: ${missing.slice(0, 4).join(', ')}${missing.length > 4 ? ' …' : ''}` : ''}. Save to keep them.${refused.map(({ path, reason }) => ` Not read: ${path} (${reason}).`).join('')}`,
      );
    } catch (error) {
      tell(
        error instanceof TokensError
          ? error.message
          : `“${chosen.name}” is no JSON file. Export design tokens as JSON and try again.`,
      );
    }
  };
  const file = useFile({
    label: 'Design tokens to import',
    accept: 'application/json,.json,.tokens',
    onChoose: importTokens,
  });

  return (
    <div className="grid gap-6 lg:grid-cols-[19rem_1fr]">
      <div className="grid max-h-[58vh] max-lg:max-h-none content-start gap-3 overflow-y-auto pr-2 pl-1">
        <Field
          label="Name"
          value={name}
          maxLength={80}
          onChange={(event) => draft.set({ name: event.target.value, style })}
        />
        <fieldset>
          <legend className="mb-1 text-xs">Colours by their part</legend>
          {COLOUR_ROLES.map((role) => (
            <RoleRow
              key={role}
              role={role}
              palette={style.palette}
              onChange={(colour) => set({ palette: { ...style.palette, [role]: colour } })}
            />
          ))}
        </fieldset>
        <div className="grid grid-cols-2 gap-2">
          {(['text', 'heading'] as const).map((part) => (
            <LettersField
              key={part}
              siteId={siteId}
              label={part === 'text' ? 'Letters' : 'Headings'}
              font={style.fonts[part]}
              onChange={(font) => set({ fonts: { ...style.fonts, [part]: font } })}
            />
          ))}
          <NumberField
            label="Text"
            unit="px"
            value={style.textSize}
            min={13}
            max={24}
            onChange={(textSize) => set({ textSize })}
          />
          <NumberField
            label="Headings grow by"
            unit="%"
            value={style.scale - 100}
            min={5}
            max={60}
            onChange={(by) => set({ scale: 100 + by })}
          />
          <NumberField
            label="Corners of boxes"
            unit="px"
            value={style.corners.box}
            min={0}
            max={60}
            onChange={(box) => set({ corners: { ...style.corners, box } })}
          />
          <NumberField
            label="Of buttons, fields"
            unit="px"
            value={style.corners.control}
            min={0}
            max={60}
            onChange={(control) => set({ corners: { ...style.corners, control } })}
          />
        </div>
        <BringLetters siteId={siteId} />
        <Select
          label="Shadow"
          value={style.shadow}
          options={SHADOWS.map((value) => ({ value, label: SHADOW_WORDS[value] }))}
          onChange={(shadow) => set({ shadow })}
        />
        <Segments
          label="Buttons"
          value={style.buttons}
          onChange={(buttons) => set({ buttons })}
          options={[
            { value: 'solid', label: 'Solid' },
            { value: 'outline', label: 'Outlined' },
            { value: 'soft', label: 'Soft' },
          ]}
        />
        <Segments
          label="Fields"
          value={style.fields}
          onChange={(fields) => set({ fields })}
          options={[
            { value: 'boxed', label: 'Boxed' },
            { value: 'filled', label: 'Filled' },
            { value: 'ruled', label: 'Ruled' },
          ]}
        />
      </div>
      <div className="grid content-start gap-4">
        {SAMPLE && (
          // In a narrow window there is room for what is set; the place behind shows each Look.
          <div className="max-lg:hidden">
            <StageFrame message={SAMPLE} device="desktop" width={600} height={375} look={style} isThumbnail />
          </div>
        )}
        <p className="text-soft">
          {running === 0
            ? 'No campaign is running; drafts that follow this Look change when it is saved.'
            : `${running} ${running === 1 ? 'campaign is' : 'campaigns are'} running on this site. Those that follow this Look change for visitors as soon as it is saved.`}
        </p>
        {draft.isChanged && (
          <p role="status" className="text-soft">
            {notSavedWords(draft.isContested)}
          </p>
        )}
        <div className="flex flex-wrap gap-2">
          <Button
            tone="main"
            isBusy={save.isPending}
            disabled={!draft.isChanged || name.trim() === ''}
            onClick={() => save.mutate(draft.changes)}
          >
            Save the Look
          </Button>
          {draft.isChanged && <Button onClick={draft.takeBack}>Take the changes back</Button>}
          <Button isBusy={copy.isPending} onClick={() => copy.mutate()}>
            Save as another
          </Button>
          {!look.isDefault && <Button onClick={() => makeOwn.mutate()}>Make it the site’s own</Button>}
          <Button tone="quiet" onClick={exportTokens}>
            Export tokens
          </Button>
          <Button tone="quiet" onClick={file.choose}>
            Import tokens
          </Button>
          {!look.isDefault && count > 1 && (
            <Button tone="quiet" className="text-halt" onClick={() => remove.mutate()}>
              Remove
            </Button>
          )}
          {file.node}
        </div>
      </div>
    </div>
  );
}

interface RoleRowProps {
  readonly role: keyof LookStyle['palette'];
  readonly palette: LookStyle['palette'];
  readonly onChange: (colour: string) => void;
}

function RoleRow({ role, palette, onChange }: RoleRowProps) {
  const against = AGAINST[role];
  const ratio = against && contrastRatio(palette[role], palette[against]);
  const isLow = ratio !== undefined && ratio < LEAST_TEXT_CONTRAST;
  return (
    <Popover
      label={`${ROLE_WORDS[role]} colour`}
      trigger={
        <button
          type="button"
          className="flex h-7 w-full items-center gap-2 rounded px-1 text-left hover:bg-sail-wash"
        >
          <Swatch colour={palette[role]} />
          <span className="flex-1">{ROLE_WORDS[role]}</span>
          {isLow && <span className="text-xs font-medium text-halt">▲ {ratio.toFixed(1)}</span>}
          <span className="text-xs text-soft">{palette[role]}</span>
        </button>
      }
    >
      <div className="grid gap-3">
        <HexColorPicker
          color={palette[role]}
          onChange={(next) => onChange(next.toLowerCase())}
          style={{ width: '100%', height: 140 }}
        />
        <ColourText label={ROLE_WORDS[role]} colour={palette[role]} onChange={onChange} />
        {ratio !== undefined && against && (
          <div className="flex items-center justify-between gap-2">
            <p className={isLow ? 'font-medium text-halt' : 'text-soft'}>
              {isLow ? '▲ ' : '✓ '}Contrast {ratio.toFixed(1)} to 1 with {ROLE_WORDS[against].toLowerCase()}
            </p>
            {isLow && (
              <Button onClick={() => onChange(nearestPassing(palette[role], palette[against]))}>
                Nearest that can
              </Button>
            )}
          </div>
        )}
      </div>
    </Popover>
  );
}
