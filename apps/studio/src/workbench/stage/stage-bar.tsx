import { languageName, languagesOf, personalPlaces } from '@velarium/core';
import { Eye, EyeOff } from 'lucide-react';
import { useMemo } from 'react';
import { useCommands } from '../../app/commands.ts';
import { KeyHint } from '../../app/key-hint.tsx';
import { cx } from '../../ui/cx.ts';
import { Select } from '../../ui/select.tsx';
import { SAMPLE_VISITORS } from '../message/personal-hint.tsx';
import { useWorkbench, useWorkbenchLater, useWorkbenchStore } from '../store.ts';
import { type KeptStage, keepStage } from './kept-stage.ts';

const AS_WRITTEN = 'written';

interface StageBarProps {
  /** Which page stands behind, and how it came there; empty where none does. */
  readonly ground: string;
}

/** How the stage shows the message. */
export function StageBar({ ground }: StageBarProps) {
  const { setStage } = useWorkbenchStore().getState();
  const view = useWorkbench((state) => state.stage);
  const message = useWorkbenchLater((state) => state.document.message);
  const hasPlaces = useMemo(() => personalPlaces(message).length > 0, [message]);
  const languages = languagesOf(message);
  const darkens = useWorkbench((state) => state.document.message.darkens);
  const look = (change: Partial<KeptStage>) => {
    setStage(change);
    keepStage(change);
  };
  const flip = {
    shows: () => setStage({ shows: view.shows === 'pair' ? 'tablet' : 'pair' }),
    ground: () => look({ ground: view.ground === 'page' ? 'plain' : 'page' }),
    zoom: () => look({ zoom: view.zoom === 'fit' ? 'real' : 'fit' }),
    dark: () => setStage({ isDark: !view.isDark }),
    hide: () => setStage({ isMessageHidden: !view.isMessageHidden }),
  };
  useCommands('Stage', [
    {
      id: 'stage.tablet',
      label: view.shows === 'pair' ? 'Show a tablet' : 'Show desktop and phone',
      keys: 't',
      run: flip.shows,
    },
    {
      id: 'stage.ground',
      label: view.ground === 'page' ? 'Plain ground behind' : 'A page behind',
      keys: 'g',
      run: flip.ground,
    },
    {
      id: 'stage.zoom',
      label: view.zoom === 'fit' ? 'Real size' : 'As large as there is room',
      keys: 'z',
      run: flip.zoom,
    },
    ...(darkens
      ? [
          {
            id: 'stage.dark',
            label: view.isDark ? 'As on a light device' : 'As on a dark device',
            keys: 'd',
            run: flip.dark,
          },
        ]
      : []),
    {
      id: 'stage.hide',
      label: view.isMessageHidden ? 'Show the message' : 'Hide the message',
      keys: 'h',
      run: flip.hide,
    },
  ]);
  return (
    <div
      role="toolbar"
      aria-label="Stage"
      className="flex h-9 items-center gap-1 overflow-x-auto px-6 whitespace-nowrap max-lg:px-4 max-lg:[&_kbd]:hidden"
    >
      <Flip isOn={view.shows === 'tablet'} keys="t" label="Tablet" onFlip={flip.shows} />
      <Flip isOn={view.ground === 'page'} keys="g" label="Page behind" onFlip={flip.ground} />
      {darkens && <Flip isOn={view.isDark} keys="d" label="At night" onFlip={flip.dark} />}
      <Flip isOn={view.zoom === 'real'} keys="z" label="Real size" onFlip={flip.zoom} />
      <button
        type="button"
        aria-pressed={view.isMessageHidden}
        onClick={flip.hide}
        className="flex h-6 items-center gap-1.5 rounded px-2 hover:bg-sail-wash aria-pressed:bg-ink aria-pressed:text-sheet"
      >
        {view.isMessageHidden ? <EyeOff size={13} aria-hidden /> : <Eye size={13} aria-hidden />}
        Hide the message <KeyHint keys="h" className="opacity-70" />
      </button>
      {ground && (
        <p className="ml-2 min-w-0 truncate text-xs text-soft" title={ground}>
          {ground}
        </p>
      )}
      {languages.length > 0 && (
        <Select
          label="Read in"
          isLabelHidden
          className="ml-auto w-44"
          value={view.language ?? languages[0] ?? ''}
          options={languages.map((one) => ({ value: one, label: `In ${languageName(one)}` }))}
          onChange={(next) => setStage({ language: next })}
        />
      )}
      {hasPlaces && (
        <Select
          label="Read as"
          isLabelHidden
          className={cx('w-72', languages.length === 0 && 'ml-auto')}
          value={view.visitor === null ? AS_WRITTEN : String(view.visitor)}
          options={[
            { value: AS_WRITTEN, label: 'Texts as written' },
            ...SAMPLE_VISITORS.map(({ name }, n) => ({ value: String(n), label: `As ${name}` })),
          ]}
          onChange={(next) => setStage({ visitor: next === AS_WRITTEN ? null : Number(next) })}
        />
      )}
    </div>
  );
}

const Flip = ({
  isOn,
  keys,
  label,
  onFlip,
}: {
  isOn: boolean;
  keys: string;
  label: string;
  onFlip: () => void;
}) => (
  <button
    type="button"
    aria-pressed={isOn}
    onClick={onFlip}
    className={cx(
      'flex h-6 items-center gap-1.5 rounded px-2 hover:bg-sail-wash aria-pressed:bg-ink aria-pressed:text-sheet',
    )}
  >
    {label} <KeyHint keys={keys} className="opacity-70" />
  </button>
);
