import { languageName, languagesOf, translationState, withSavedBlocks } from '@velarium/core';
import { useMemo, useState } from 'react';
import { useCommands } from '../app/commands.ts';
import { Button } from '../ui/button.tsx';
import { Fold } from '../ui/fold.tsx';
import { useWorkbenchDesign } from '../workbench/message/use-message.ts';
import { useWorkbench, useWorkbenchLater } from '../workbench/store.ts';
import { LanguagesDialog, stateWords } from './languages-dialog.tsx';

/** The languages a message has, and how far each has come. */
export function LanguagesFold() {
  const message = useWorkbenchLater((state) => state.document.message);
  const canEdit = useWorkbench((state) => state.canEdit);
  const { savedOf } = useWorkbenchDesign();
  const [isOpen, setOpen] = useState(false);
  const languages = languagesOf(message);
  const states = useMemo(() => {
    const whole = withSavedBlocks(message, savedOf);
    return languagesOf(message)
      .slice(1)
      .map((language) => ({ language, words: stateWords(translationState(whole, language)) }));
  }, [message, savedOf]);
  useCommands('Message', [{ id: 'message.languages', label: 'Languages …', run: () => setOpen(true) }]);
  return (
    <Fold title="Languages" note={languages.length > 0 ? languages.map(languageName).join(', ') : 'one'}>
      {states.length === 0 ? (
        <p className="text-soft">Every visitor reads it as it is written here.</p>
      ) : (
        <ul className="grid gap-1">
          {states.map(({ language, words }) => (
            <li key={language} className="flex justify-between gap-3">
              <span>{languageName(language)}</span>
              <span className="text-xs text-soft">{words}</span>
            </li>
          ))}
        </ul>
      )}
      {(canEdit || states.length > 0) && (
        <Button className="justify-self-start" onClick={() => setOpen(true)}>
          {states.length === 0 ? 'Write it in another language …' : 'Texts side by side …'}
        </Button>
      )}
      {isOpen && <LanguagesDialog onClose={() => setOpen(false)} />}
    </Fold>
  );
}
