import type { Action } from '@velarium/contract';
import { ATTENTIONS } from '@velarium/contract/values';
import { stepName } from '@velarium/core';
import { Field } from '../../../ui/field.tsx';
import { Segments } from '../../../ui/segments.tsx';
import { Select } from '../../../ui/select.tsx';
import { Switch } from '../../../ui/switch.tsx';
import { useWorkbench } from '../../store.ts';
import type { EditorProps } from '../use-message.ts';
import { AddressField } from './address-field.tsx';

const ACTION_WORDS: Readonly<Record<Action['kind'], string>> = {
  link: 'Leads to an address',
  step: 'Shows another step',
  close: 'Closes the message',
  refuse: 'Says no',
  copy: 'Copies a text',
  share: 'Opens the share sheet',
  call: 'Calls the page’s script',
};
const ATTENTION_WORDS = {
  none: 'Nothing',
  lift: 'Lifts',
  swell: 'Swells',
  sheen: 'Shines',
  nudge: 'Nudges',
} as const;

export function ButtonEditor({ block, edit }: EditorProps<'button'>) {
  const { action } = block;
  const message = useWorkbench((state) => state.document.message);
  const setAction = (next: Action, part: string) => edit((old) => ({ ...old, action: next }), part);
  const begin = (kind: Action['kind']): Action => {
    switch (kind) {
      case 'link':
        return { kind, address: '', newTab: false };
      case 'step':
        return {
          kind,
          step: message.steps.find(({ role }) => role !== 'first')?.id ?? message.steps[0]?.id ?? '',
        };
      case 'copy':
        return { kind, text: '' };
      case 'call':
        return { kind, name: '' };
      default:
        return { kind };
    }
  };
  return (
    <>
      <Field
        label="Words on the button"
        value={block.label}
        maxLength={120}
        onChange={(event) => edit((old) => ({ ...old, label: event.target.value }), 'words')}
      />
      <Select
        label="When pressed"
        value={action.kind}
        options={Object.entries(ACTION_WORDS).map(([value, label]) => ({
          value: value as Action['kind'],
          label,
        }))}
        onChange={(kind) => setAction(begin(kind), 'action')}
      />
      {action.kind === 'link' && (
        <>
          <AddressField
            label="Address"
            address={action.address}
            hint="Without an address the button only closes."
            onChange={(address) => setAction({ ...action, address }, 'address')}
          />
          <Switch
            label="Opens in a new tab"
            isOn={action.newTab}
            onChange={(newTab) => setAction({ ...action, newTab }, 'tab')}
          />
          <details open={Boolean(action.ios || action.android)}>
            <summary className="underline-offset-4 hover:underline">
              Other addresses for phones of one system
            </summary>
            <div className="mt-2 grid gap-2">
              <AddressField
                label="On iOS"
                address={action.ios ?? ''}
                onChange={(ios) => setAction({ ...action, ios }, 'ios')}
              />
              <AddressField
                label="On Android"
                address={action.android ?? ''}
                onChange={(android) => setAction({ ...action, android }, 'android')}
              />
            </div>
          </details>
        </>
      )}
      {action.kind === 'step' && (
        <Select
          label="Which step"
          value={action.step}
          options={message.steps.map(({ id }) => ({ value: id, label: stepName(message, id) }))}
          onChange={(step) => setAction({ kind: 'step', step }, 'step')}
        />
      )}
      {action.kind === 'copy' && (
        <Field
          label="Text that is copied"
          value={action.text}
          maxLength={200}
          onChange={(event) => setAction({ kind: 'copy', text: event.target.value }, 'copy')}
        />
      )}
      {action.kind === 'call' && (
        <Field
          label="Name the script listens for"
          value={action.name}
          maxLength={80}
          hint="velarium.on('called', ({ name }) => …)"
          onChange={(event) => setAction({ kind: 'call', name: event.target.value }, 'call')}
        />
      )}
      <Segments
        label="Looks"
        value={block.tone}
        onChange={(tone) => edit((old) => ({ ...old, tone }), 'tone')}
        options={[
          { value: 'main', label: 'Main' },
          { value: 'quiet', label: 'Quiet' },
          { value: 'words', label: 'Only words' },
        ]}
      />
      <Select
        label="Under a pointer it"
        value={block.attention}
        options={ATTENTIONS.map((value) => ({ value, label: ATTENTION_WORDS[value] }))}
        onChange={(attention) => edit((old) => ({ ...old, attention }), 'attention')}
      />
    </>
  );
}
