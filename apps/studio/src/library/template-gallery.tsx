import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Device, Format, LookStyle, Message } from '@velarium/contract';
import { FORMATS } from '@velarium/contract/values';
import { AIMS, type Aim, FORMAT_WORDS, LOOKS, type LookPreset, TEMPLATES } from '@velarium/core';
import { type ReactNode, useId, useState } from 'react';
import { looksQuery, ownTemplatesQuery, removeTemplate } from '../api/library.ts';
import { useCanEdit } from '../app/use-session.ts';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { tellProblem } from '../ui/toast.tsx';
import { StageFrame } from '../workbench/stage/stage-frame.tsx';

export interface ChosenTemplate {
  readonly id: string;
  readonly message: Message;
}
export interface TemplateGalleryProps {
  readonly siteId: string;
  readonly onChoose: (template: ChosenTemplate) => void;
  /** The template that is chosen at first. */
  readonly first?: string;
  /** What is asked beside, in the same row. */
  readonly children?: ReactNode;
}

const AIM_WORDS: Readonly<Record<Aim, string>> = {
  gather: 'Gather sign-ups',
  lead: 'Lead somewhere',
  tell: 'Tell something',
  offer: 'Make an offer',
  ask: 'Ask something',
  share: 'Be passed on',
};
const ANY = 'any';
const OWN_LOOK = 'own';
const THUMBNAIL: Readonly<Record<'desktop' | 'mobile', { readonly width: number; readonly height: number }>> =
  {
    desktop: { width: 282, height: 176 },
    mobile: { width: 150, height: 325 },
  };

/** Templates in the site's own Look, drawn by the renderer that visitors meet; sorted by aim, format and device. */
export function TemplateGallery({ siteId, onChoose, first = '', children }: TemplateGalleryProps) {
  const group = useId();
  const { data: own } = useQuery(ownTemplatesQuery(siteId));
  const canEdit = useCanEdit();
  const queryClient = useQueryClient();
  const remove = useMutation({
    mutationFn: (id: string) => removeTemplate(siteId, id),
    onError: tellProblem,
    onSettled: () => queryClient.invalidateQueries({ queryKey: ownTemplatesQuery(siteId).queryKey }),
  });
  const [aim, setAim] = useState<Aim | typeof ANY>(ANY);
  const [format, setFormat] = useState<Format | typeof ANY>(ANY);
  const [device, setDevice] = useState<Extract<Device, 'desktop' | 'mobile'>>('desktop');
  const [chosen, setChosen] = useState<string>(first);
  const { data: looks } = useQuery(looksQuery(siteId));
  const [lookId, setLookId] = useState(OWN_LOOK);
  // The site's own Looks, and those there are to begin one from.
  const others: readonly LookPreset[] = [
    ...(looks ?? []).filter(({ isDefault }) => !isDefault),
    ...LOOKS.filter(({ name }) => !looks?.some((one) => one.name === name)),
  ];
  const look = others.find(({ id }) => id === lookId)?.style;
  const ours = TEMPLATES.filter(
    (one) => (aim === ANY || one.aim === aim) && (format === ANY || one.message.format === format),
  );
  const theirs = (own ?? []).filter(
    (one) => aim === ANY && (format === ANY || one.message.format === format),
  );
  const choose = (template: ChosenTemplate) => {
    setChosen(template.id);
    onChoose(template);
  };
  return (
    <fieldset className="grid gap-4">
      <legend className="sr-only">Template</legend>
      <div className="flex flex-wrap items-end gap-3">
        {children}
        <Select
          label="Aim"
          className="w-36"
          value={aim}
          options={[
            { value: ANY, label: 'Any aim' },
            ...AIMS.map((value) => ({ value, label: AIM_WORDS[value] })),
          ]}
          onChange={setAim}
        />
        <Select
          label="Format"
          className="w-36"
          value={format}
          options={[
            { value: ANY, label: 'Any format' },
            ...FORMATS.map((value) => ({
              value,
              label: FORMAT_WORDS[value].replace(/^./, (letter) => letter.toUpperCase()),
            })),
          ]}
          onChange={setFormat}
        />
        <Select
          label="In the Look"
          className="w-40"
          value={lookId}
          options={[
            { value: OWN_LOOK, label: 'The site’s own' },
            ...others.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={setLookId}
        />
        <Segments
          label="Shown on"
          value={device}
          onChange={setDevice}
          options={[
            { value: 'desktop', label: 'Desktop' },
            { value: 'mobile', label: 'Phone' },
          ]}
        />
      </div>
      {ours.length + theirs.length === 0 && (
        <p className="text-soft">No template has this aim in this format. Choose any format.</p>
      )}
      <div
        className={
          device === 'desktop'
            ? 'grid gap-4 sm:grid-cols-2 lg:grid-cols-3'
            : 'grid grid-cols-2 gap-4 sm:grid-cols-3 lg:grid-cols-5'
        }
      >
        {theirs.map(({ id, name, message }) => (
          <Card
            key={id}
            group={group}
            id={id}
            name={name}
            purpose="Kept by your team"
            message={message}
            device={device}
            look={look}
            isChosen={chosen === id}
            onChoose={() => choose({ id, message })}
            {...(canEdit ? { onRemove: () => remove.mutate(id) } : {})}
          />
        ))}
        {ours.map(({ id, name, purpose, message }) => (
          <Card
            key={id}
            group={group}
            id={id}
            name={name}
            purpose={purpose}
            message={message}
            device={device}
            look={look}
            isChosen={chosen === id}
            onChoose={() => choose({ id, message })}
          />
        ))}
      </div>
    </fieldset>
  );
}

interface CardProps {
  readonly group: string;
  readonly id: string;
  readonly name: string;
  readonly purpose: string;
  readonly message: Message;
  readonly device: 'desktop' | 'mobile';
  /** In place of the one it follows. */
  readonly look: LookStyle | undefined;
  readonly isChosen: boolean;
  readonly onChoose: () => void;
  readonly onRemove?: () => void;
}

function Card({ group, id, name, purpose, message, device, look, isChosen, onChoose, onRemove }: CardProps) {
  return (
    <label className="grid cursor-pointer content-start gap-2 rounded-md border border-line p-2.5 hover:border-ink has-checked:border-ink has-checked:bg-sheet has-focus-visible:outline-2 has-focus-visible:outline-ink">
      <StageFrame
        message={message}
        device={device}
        {...THUMBNAIL[device]}
        isThumbnail
        {...(look ? { look } : {})}
      />
      <span className="flex items-baseline gap-2">
        <input
          type="radio"
          name={group}
          value={id}
          checked={isChosen}
          onChange={onChoose}
          className="accent-sail"
        />
        <span className="font-semibold">{name}</span>
        <span className="text-xs text-soft">{FORMAT_WORDS[message.format]}</span>
      </span>
      <span className="flex justify-between text-soft">
        {purpose}
        {onRemove && (
          <button type="button" onClick={onRemove} className="underline-offset-4 hover:underline">
            Remove
          </button>
        )}
      </span>
    </label>
  );
}
