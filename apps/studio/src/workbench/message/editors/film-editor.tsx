import { useMutation, useQueryClient } from '@tanstack/react-query';
import { frameAddressSchema } from '@velarium/contract';
import { cleanFilmAddress } from '@velarium/core';
import { problemWords } from '../../../api/client.ts';
import { askFilm, picturesQuery } from '../../../api/library.ts';
import { Field } from '../../../ui/field.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { TextArea } from '../../../ui/text-area.tsx';
import { useFieldText } from '../../../ui/use-field-text.ts';
import { useWorkbench } from '../../store.ts';
import { PictureField } from '../picture-field.tsx';
import type { EditorProps } from '../use-message.ts';

export function FilmEditor({ block, edit }: EditorProps<'film'>) {
  const [text, setText] = useFieldText(block.address);
  const ask = useAskFilm(edit);
  const clean = text === '' ? '' : cleanFilmAddress(text);
  const take = (address: string | undefined) => {
    if (address === undefined || address === block.address) return;
    edit((old) => ({ ...old, address }), 'address');
    if (address !== '') ask.mutate(address);
  };
  return (
    <>
      <Field
        label="Address of the video"
        value={text}
        placeholder="Paste it from the video host"
        onChange={(event) => setText(event.target.value)}
        onPaste={(event) => {
          const pasted = cleanFilmAddress(event.clipboardData.getData('text/plain'));
          if (pasted === undefined) return;
          event.preventDefault();
          setText(pasted);
          take(pasted);
        }}
        onBlur={() => take(clean)}
        error={clean === undefined ? 'Paste the whole address, beginning with https://.' : undefined}
        hint={
          clean && clean !== text
            ? `Kept as ${clean}`
            : 'What says who passed it on, or in which list it stood, is taken off.'
        }
      />
      <p className="text-xs text-soft" role="status">
        {ask.isPending && 'Asking the video host what it is called and looks like …'}
        {ask.isSuccess && 'Title, still picture and shape are as the video host tells them.'}
        {ask.isError &&
          `${problemWords(ask.error).detail} Title and still picture are those from before: look whether they suit this film.`}
      </p>
      <Field
        label="Title"
        value={block.title}
        maxLength={200}
        hint="A screen reader says it before the video is played."
        onChange={(event) => edit((old) => ({ ...old, title: event.target.value }), 'title')}
      />
      <div>
        <span className="mb-1 block text-xs">Still picture until it is played</span>
        <PictureField
          value={block.picture}
          canBeNone
          onChange={(picture) => edit((old) => ({ ...old, picture }), 'picture')}
        />
      </div>
      <NumberField
        label="Width to height"
        unit="%"
        value={block.ratio}
        min={40}
        max={300}
        onChange={(ratio) => edit((old) => ({ ...old, ratio }), 'ratio')}
      />
      <p className="text-xs text-soft">Nothing of the video host is loaded before a visitor plays it.</p>
    </>
  );
}

/** Asks the host of a film what it is; what it tells is taken if the film is still that one. */
function useAskFilm(edit: EditorProps<'film'>['edit']) {
  const siteId = useWorkbench((state) => state.siteId);
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (asked: string) => askFilm(siteId, asked),
    onSuccess: async (facts, asked) => {
      // The still is to be seen as soon as it is named.
      if (facts.picture) await queries.refetchQueries({ queryKey: picturesQuery(siteId).queryKey });
      edit(
        (old) =>
          old.address === asked
            ? {
                ...old,
                address: facts.address,
                title: facts.title || old.title,
                picture: facts.picture,
                ratio: facts.ratio ?? old.ratio,
              }
            : old,
        'address',
      );
    },
  });
}

export function FrameEditor({ block, edit }: EditorProps<'frame'>) {
  const [text, setText] = useFieldText(block.address);
  const isRight = frameAddressSchema.safeParse(text).success;
  return (
    <>
      <Field
        label="Address of the page"
        value={text}
        placeholder="https://…"
        onChange={(event) => {
          const next = event.target.value.trim();
          setText(next);
          if (frameAddressSchema.safeParse(next).success)
            edit((old) => ({ ...old, address: next }), 'address');
        }}
        error={isRight ? undefined : 'Start with https://, without spaces.'}
      />
      <TitleAndHeight
        title={block.title}
        height={block.height}
        least={40}
        onChange={(change, part) => edit((old) => ({ ...old, ...change }), part)}
      />
    </>
  );
}

export function HtmlEditor({ block, edit }: EditorProps<'html'>) {
  return (
    <>
      <TextArea
        label="HTML"
        value={block.markup}
        maxLength={20_000}
        rows={8}
        spellCheck={false}
        className="font-mono text-xs"
        hint="Runs in a frame without an origin: it reaches neither the page nor the visitor’s storage. On the stage its scripts do not run."
        onChange={(event) => edit((old) => ({ ...old, markup: event.target.value }), 'markup')}
      />
      <TitleAndHeight
        title={block.title}
        height={block.height}
        least={20}
        onChange={(change, part) => edit((old) => ({ ...old, ...change }), part)}
      />
    </>
  );
}

interface TitleAndHeightProps {
  readonly title: string;
  readonly height: number;
  readonly least: number;
  readonly onChange: (change: { title?: string; height?: number }, part: string) => void;
}

const TitleAndHeight = ({ title, height, least, onChange }: TitleAndHeightProps) => (
  <div className="grid grid-cols-[1fr_6rem] items-end gap-2">
    <Field
      label="Title"
      value={title}
      maxLength={200}
      onChange={(event) => onChange({ title: event.target.value }, 'title')}
    />
    <NumberField
      label="Height"
      unit="px"
      value={height}
      min={least}
      max={1200}
      step={10}
      onChange={(next) => onChange({ height: next }, 'height')}
    />
  </div>
);
