import {
  cutOffFindings,
  type DesignFinding,
  designFindings,
  hasOwnHeight,
  languageFindings,
  type MeasuredStep,
  withSavedBlocks,
} from '@velarium/core';
import { useMemo } from 'react';
import { useMeasured } from '../../library/use-measured.ts';
import { Fold } from '../../ui/fold.tsx';
import { useWorkbench, useWorkbenchLater, useWorkbenchStore } from '../store.ts';
import { useWorkbenchDesign } from './use-message.ts';

const SIGN: Readonly<Record<DesignFinding['severity'], { readonly sign: string; readonly word: string }>> = {
  stop: { sign: '■', word: 'Must be mended' },
  warn: { sign: '▲', word: 'Should be mended' },
  hint: { sign: '○', word: 'Worth a look' },
};

const NOTHING: readonly MeasuredStep[] = [];

function useFindings(): DesignFinding[] {
  const message = useWorkbenchLater((state) => state.document.message);
  const devices = useWorkbench((state) => state.document.rule.reach.devices);
  const design = useWorkbenchDesign();
  const siteId = useWorkbench((state) => state.siteId);
  // What is as high as its content is measured at its launch: drawing it once more for every word would be dear.
  const fixed = useMemo(
    () => [{ messages: [{ message }], devices: devices.filter((device) => hasOwnHeight(message, device)) }],
    [message, devices],
  );
  const measured = useMeasured(siteId, fixed).measured[0]?.[0] ?? NOTHING;
  return useMemo(
    () => [
      ...designFindings({
        message: withSavedBlocks(message, design.savedOf),
        look: design.lookOf(message),
        devices,
        weightOf: design.weightOf,
      }),
      ...languageFindings(withSavedBlocks(message, design.savedOf)),
      ...cutOffFindings(message, measured),
    ],
    [message, devices, design, measured],
  );
}

/** What is worth a look while designing, quietly, each with its mend where one is plain. */
export function FindingsFold() {
  const { editMessage, select } = useWorkbenchStore().getState();
  const canEdit = useWorkbench((state) => state.canEdit);
  const findings = useFindings();
  return (
    <Fold title="Findings" note={findings.length === 0 ? 'nothing found' : `${findings.length} worth a look`}>
      {findings.length === 0 ? (
        <p className="text-soft">Nothing to mend: it can be read, reached and closed by everybody.</p>
      ) : (
        <ul className="grid gap-2">
          {findings.map((finding) => {
            const { code, severity, text, blockId, mend } = finding;
            return (
              <li key={`${code}-${blockId}-${text}`} className="grid grid-cols-[1rem_1fr] gap-x-1.5">
                <span
                  aria-hidden="true"
                  className={
                    severity === 'stop' ? 'text-halt' : severity === 'warn' ? 'text-sail' : 'text-soft'
                  }
                >
                  {SIGN[severity].sign}
                </span>
                <div>
                  <span className="sr-only">{SIGN[severity].word}: </span>
                  {text}
                  <div className="flex gap-3">
                    {mend && canEdit && (
                      <button
                        type="button"
                        className="font-medium text-sail underline-offset-4 hover:underline"
                        onClick={() => editMessage(mend.apply, `mend.${code}`)}
                      >
                        {mend.label}
                      </button>
                    )}
                    {blockId && (
                      <button
                        type="button"
                        className="underline-offset-4 hover:underline"
                        onClick={() => select(blockId)}
                      >
                        Show the block
                      </button>
                    )}
                  </div>
                </div>
              </li>
            );
          })}
        </ul>
      )}
    </Fold>
  );
}
