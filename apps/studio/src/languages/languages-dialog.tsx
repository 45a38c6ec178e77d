import {
  counted,
  inLanguage,
  languageName,
  languagesOf,
  SPOKEN,
  translatedTexts,
  translationState,
  withLanguage,
  withoutLanguage,
  withSavedBlocks,
  withTranslated,
  xliffOf,
} from '@velarium/core';
import { useMemo, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { saveFile } from '../ui/save-file.ts';
import { Segments } from '../ui/segments.tsx';
import { tell } from '../ui/toast.tsx';
import { useTextFile } from '../ui/use-text-file.tsx';
import { useWorkbenchDesign } from '../workbench/message/use-message.ts';
import { useWorkbench, useWorkbenchStore } from '../workbench/store.ts';
import { AddLanguage } from './add-language.tsx';
import { LanguageRow } from './language-row.tsx';
import { readTranslations, TABLE_HEADS } from './read-translations.ts';

type Shown = 'all' | 'todo';

/** How far a language has come, in words. */
export function stateWords({ missing, older }: { readonly missing: number; readonly older: number }): string {
  const parts = [
    ...(missing > 0 ? [`${missing} missing`] : []),
    ...(older > 0 ? [`${older} older than the original`] : []),
  ];
  return parts.length > 0 ? parts.join(', ') : 'all there';
}

/** The texts of a message side by side with what they are in its other languages. */
export function LanguagesDialog({ onClose }: { readonly onClose: () => void }) {
  const store = useWorkbenchStore();
  const message = useWorkbench((state) => state.document.message);
  const name = useWorkbench((state) => state.name);
  const canEdit = useWorkbench((state) => state.canEdit);
  const onStage = useWorkbench((state) => state.stage.language);
  const { savedOf } = useWorkbenchDesign();
  const whole = useMemo(() => withSavedBlocks(message, savedOf), [message, savedOf]);
  const [shown, setShown] = useState<Shown>('all');
  /** Rows that were to be done when they were asked for stay in sight while they are written. */
  const [todo, setTodo] = useState<ReadonlySet<string>>(new Set());
  const languages = languagesOf(message);
  const original = message.languages?.original ?? '';
  const language = (onStage && languages.includes(onStage) ? onStage : languages[1]) ?? languages[0] ?? '';
  const texts = useMemo(() => translatedTexts(whole, language), [whole, language]);
  const rows = shown === 'all' ? texts : texts.filter(({ key, state }) => state !== 'done' || todo.has(key));

  const { editMessage, setStage } = store.getState();
  const choose = (next: string) => {
    setStage({ language: next });
    setShown('all');
  };
  const write = (key: string, text: string) =>
    editMessage(
      (old) => withTranslated(old, withSavedBlocks(old, savedOf), language, { [key]: { text } }),
      `language.${language}.${key}`,
    );
  const add = (tag: string) => {
    editMessage((old) => withLanguage(old, tag), `language.add.${tag}`);
    if (original !== '') choose(tag);
  };
  const takeAway = () => {
    editMessage((old) => withoutLanguage(old, language), `language.remove.${language}`);
    setStage({ language: null });
    tell(`${languageName(language)} was taken away with its texts. Undo brings it back.`);
  };

  const fileName = `${name}-${language}`.replace(/[^\p{L}\p{N}-]+/gu, '-').toLowerCase();
  const saveXliff = () =>
    saveFile(
      new Blob([xliffOf(texts, { original, language, name })], { type: 'application/xliff+xml' }),
      `${fileName}.xlf`,
    );
  const saveTable = async () => {
    const { unparse } = await import('papaparse');
    const table = [
      TABLE_HEADS,
      ...texts.map(({ key, step, what, text, translated }) => [key, `${step}: ${what}`, text, translated]),
    ];
    const csv = unparse(table, { quotes: true, escapeFormulae: true });
    saveFile(new Blob(['\uFEFF', csv], { type: 'text/csv' }), `${fileName}.csv`);
  };
  const take = async (file: string) => {
    const { language: said, written } = await readTranslations(file);
    if (said && said !== language) {
      tell(
        languages.includes(said)
          ? `This file is in ${languageName(said)}. Choose that language first; nothing was taken.`
          : `This file is in ${languageName(said)}, which the message has not got. Add it first; nothing was taken.`,
      );
      return;
    }
    const known = new Set(texts.map(({ key }) => key));
    const keys = Object.keys(written);
    const fitting = keys.filter((key) => known.has(key));
    if (fitting.length === 0) {
      tell('None of the texts in this file belongs to this message; nothing was taken.');
      return;
    }
    editMessage(
      (old) => withTranslated(old, withSavedBlocks(old, savedOf), language, written),
      `language.${language}.file.${Date.now()}`,
    );
    const strange = keys.length - fitting.length;
    tell(
      `${counted(fitting.length, 'text')} taken in ${languageName(language)}.${
        strange > 0 ? ` ${counted(strange, 'text')} of no place in this message left out.` : ''
      }`,
    );
  };
  const file = useTextFile({ label: 'Translated texts', accept: '.xlf,.xliff,.csv,text/csv', onRead: take });

  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="Languages"
      description="Visitors meet the message in the language of the page, else in their own, else in the one it was written in."
      className="w-[min(96vw,68rem)]"
    >
      {original === '' ? (
        <AddLanguage
          label="It is written in"
          button="Go on"
          taken={[]}
          first="en"
          hint="The language its texts are in now. Its others are added next."
          onAdd={add}
        />
      ) : (
        <div className="grid grid-cols-[15rem_minmax(0,1fr)] gap-6 max-md:grid-cols-1">
          <div className="grid content-start gap-3">
            <ul aria-label="Languages of the message" className="grid gap-0.5">
              {languages.map((one) => (
                <li key={one}>
                  <button
                    type="button"
                    aria-pressed={one === language}
                    onClick={() => choose(one)}
                    className="w-full rounded px-2 py-1 text-left hover:bg-sail-wash aria-pressed:bg-ink aria-pressed:text-sheet"
                  >
                    <span className="block font-medium">{languageName(one)}</span>
                    <span className="block text-xs opacity-80">
                      {one === original ? 'as it was written' : stateWords(translationState(whole, one))}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
            {canEdit && <AddLanguage label="Another language" button="Add" taken={languages} onAdd={add} />}
          </div>
          <div className="min-w-0">
            <div className="flex flex-wrap items-center gap-2 pb-2">
              <h3 className="mr-auto font-medium">
                {language === original
                  ? `${languageName(language)}: what messages say of themselves`
                  : `${languageName(original)} and ${languageName(language)}`}
              </h3>
              <div className="w-40">
                <Segments
                  label="Shown"
                  isLabelHidden
                  value={shown}
                  options={[
                    { value: 'all', label: 'All' },
                    { value: 'todo', label: 'To do' },
                  ]}
                  onChange={(next) => {
                    setTodo(new Set(texts.flatMap(({ key, state }) => (state === 'done' ? [] : [key]))));
                    setShown(next);
                  }}
                />
              </div>
              {language !== original && (
                <>
                  <Button tone="quiet" onClick={saveXliff}>
                    Save as XLIFF
                  </Button>
                  <Button tone="quiet" onClick={() => void saveTable()}>
                    Save as CSV
                  </Button>
                  {canEdit && (
                    <>
                      <Button tone="quiet" onClick={file.choose}>
                        Take in a file …
                      </Button>
                      <Button tone="quiet" onClick={takeAway}>
                        Remove
                      </Button>
                    </>
                  )}
                  {file.node}
                </>
              )}
            </div>
            <p className="pb-2 text-xs text-soft">
              {language === original
                ? 'What is written here is said in place of Velarium’s own words.'
                : `${
                    inLanguage(whole, language).message.direction === 'rtl'
                      ? 'It runs from right to left. '
                      : ''
                  }Words between <1> and </1> look and lead as they do in the original. ${
                    SPOKEN.includes(language.split('-')[0] ?? '')
                      ? 'What messages say of themselves comes with Velarium, and can be said otherwise.'
                      : 'Velarium does not speak this language: what messages say of themselves is yours to write.'
                  }`}
            </p>
            {rows.length === 0 ? (
              <p className="border-t border-line py-6 text-soft">Nothing left to do in this language.</p>
            ) : (
              <ul aria-label={`Texts in ${languageName(language)}`}>
                {rows.map((row, n) => (
                  <Row key={row.key} step={row.step === rows[n - 1]?.step ? undefined : row.step}>
                    <LanguageRow
                      row={row}
                      original={original}
                      language={language}
                      onWrite={(text) => write(row.key, text)}
                    />
                  </Row>
                ))}
              </ul>
            )}
          </div>
        </div>
      )}
    </Dialog>
  );
}

/** A text, under the name of its step where that begins. */
const Row = ({
  step,
  children,
}: {
  readonly step: string | undefined;
  readonly children: React.ReactNode;
}) => (
  <>
    {step && (
      <li aria-hidden="true" className="pt-3 pb-1 font-serif text-lg">
        {step}
      </li>
    )}
    {children}
  </>
);
