import type { Trigger, TriggerKind } from '@velarium/contract';
import { anotherTrigger, triggerWords } from '@velarium/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../../ui/button.tsx';
import { Menu } from '../../../ui/menu.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { SecondsField } from './seconds-field.tsx';
import { TriggerFields } from './trigger-fields.tsx';
import { TRIGGER_KINDS } from './trigger-kinds.tsx';
import { signWords, TriggerPicture } from './trigger-picture.tsx';
import { TryIt } from './try-it.tsx';
import { useMoment, useMomentEdits } from './use-moment.ts';

const MOST = 12;
const KINDS = Object.keys(TRIGGER_KINDS) as TriggerKind[];
const AGAIN_SECONDS = 60;

/** When it opens: its triggers, how they are joined, when it may at all, and whether it comes again. */
export function MomentControl() {
  const { join, triggers, notBeforeSeconds, againAfterSeconds } = useMoment();
  const edits = useMomentEdits();
  // What was just added lies open: it is there to be set.
  const [added, setAdded] = useState<number | null>(null);
  return (
    <div className="grid gap-3">
      {triggers.length > 1 && (
        <Segments
          label="It opens at"
          value={join}
          onChange={(next) => edits.change({ join: next }, 'join')}
          options={[
            { value: 'any', label: 'The first of them' },
            { value: 'all', label: 'The last of them' },
          ]}
        />
      )}
      <ul aria-label="Triggers" className="grid gap-1">
        {triggers.map((trigger, at) => {
          const { label, meaning, sign: Sign } = TRIGGER_KINDS[trigger.kind];
          return (
            // Triggers have no name of their own; where they stand is what they are told by.
            // biome-ignore lint/suspicious/noArrayIndexKey: see above.
            <li key={`${trigger.kind}-${at}`} className="relative rounded border border-line bg-sheet">
              <details open={triggers.length === 1 || at === added} className="group">
                <summary className="flex min-h-8 list-none items-center gap-2 rounded py-1 pr-8 pl-2.5 hover:bg-sail-wash [&::-webkit-details-marker]:hidden">
                  <Sign size={14} aria-hidden className="flex-none text-soft" />
                  <span className="min-w-0 flex-1">
                    <span className="sr-only">{label}: </span>
                    {triggerWords(trigger)}
                  </span>
                </summary>
                <div className="grid gap-3 px-2.5 pt-1 pb-3">
                  <TriggerFields trigger={trigger} onChange={(next) => edits.setTrigger(at, next)} />
                  <div className="flex items-center gap-3">
                    <TriggerPicture trigger={trigger} />
                    <p className="text-xs text-soft">
                      {meaning}
                      {trigger.kind === 'exitMouse' && (
                        <span className="mt-1 block">{signWords(trigger.certainty)}</span>
                      )}
                    </p>
                  </div>
                  <TryIt trigger={trigger} />
                </div>
              </details>
              {triggers.length > 1 && (
                <IconButton
                  label={`Remove: ${label}`}
                  className="absolute top-1 right-1"
                  onClick={() => edits.remove(at)}
                >
                  <X size={13} aria-hidden />
                </IconButton>
              )}
            </li>
          );
        })}
      </ul>
      {triggers.length < MOST && (
        <Menu
          items={KINDS.flatMap((kind) => {
            const { label, beginning } = TRIGGER_KINDS[kind];
            const another = anotherTrigger(beginning, triggers);
            const add = (trigger: Trigger) => () => {
              setAdded(triggers.length);
              edits.add(trigger);
            };
            return another ? [{ label, onSelect: add(another) }] : [];
          })}
        >
          <Button className="justify-self-start">Add a trigger</Button>
        </Menu>
      )}
      <SecondsField
        label="Never before"
        value={notBeforeSeconds}
        placeholder="no such limit"
        onChange={(seconds) => edits.change({ notBeforeSeconds: seconds }, 'arming')}
      />
      <Switch
        label="May come again on the same page view"
        hint="Once it is gone and its moment comes anew."
        isOn={againAfterSeconds !== null}
        onChange={(is) => edits.change({ againAfterSeconds: is ? AGAIN_SECONDS : null }, 'again')}
      />
      {againAfterSeconds !== null && (
        <SecondsField
          label="At the earliest, seconds after it is gone"
          least={1}
          value={againAfterSeconds}
          placeholder=""
          onChange={(seconds) => edits.change({ againAfterSeconds: seconds }, 'again.seconds')}
        />
      )}
    </div>
  );
}
