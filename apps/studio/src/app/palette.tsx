import { Command as Cmdk } from 'cmdk';
import { Search } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { runByKeys, useCommandStore, useCommands } from './commands.ts';
import { KeyHint } from './key-hint.tsx';

/** The command palette: every action of the place one is in, with its key. Ctrl + K opens it. */
export function Palette() {
  const [isOpen, setOpen] = useState(false);
  const groups = useCommandStore((store) => store.groups);
  const reader = useCommandStore((store) => store.reader);
  const [typed, setTyped] = useState('');
  const answer = isOpen ? reader?.(typed) : undefined;
  const proposal = answer && 'run' in answer ? answer : undefined;
  const refused = answer && 'refused' in answer ? answer.refused : '';
  useEffect(() => {
    if (!isOpen) setTyped('');
  }, [isOpen]);
  const shown = useRef(proposal);
  shown.current = proposal;
  const shape = proposal && [proposal.sentence, ...proposal.designs].join('|');
  // What is proposed is seen where it would be, before it is taken.
  useEffect(() => (shape === undefined ? undefined : shown.current?.show()), [shape]);
  useCommands('Palette', [
    { id: 'palette', label: 'Find an action', keys: 'Mod+k', run: () => setOpen(true) },
  ]);
  useEffect(() => {
    addEventListener('keydown', runByKeys, true);
    return () => removeEventListener('keydown', runByKeys, true);
  }, []);
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex h-8 items-center gap-2 rounded px-2.5 text-soft hover:bg-sail-wash hover:text-ink"
      >
        <Search size={14} aria-hidden className="sm:hidden" />
        <span className="max-sm:sr-only">Find an action</span>
        <kbd className="rounded border border-line px-1 text-xs max-lg:hidden">Ctrl K</kbd>
      </button>
      <Cmdk.Dialog
        open={isOpen}
        onOpenChange={setOpen}
        label="Find an action"
        overlayClassName={`fixed inset-0 z-40 transition-colors ${proposal && proposal.designs.length > 0 ? '' : 'bg-ink/35'}`}
        contentClassName="settle fixed top-[14vh] left-1/2 z-50 w-[min(92vw,34rem)] -translate-x-1/2 overflow-hidden rounded-lg border border-line bg-paper shadow-float"
      >
        <Cmdk.Input
          value={typed}
          onValueChange={setTyped}
          placeholder={
            reader
              ? 'An action, or a wish: after 20 seconds, not on phones, background dark green'
              : 'What would you like to do?'
          }
          className="w-full border-b border-line bg-transparent px-5 py-4 font-serif text-xl outline-none placeholder:text-base placeholder:text-soft"
        />
        <Cmdk.List className="max-h-80 overflow-y-auto p-2">
          {refused ? (
            <p role="status" className="px-3 py-2 text-hold">
              ▲ Not understood: {refused}
            </p>
          ) : (
            !proposal && (
              <Cmdk.Empty className="px-3 py-6 text-center text-soft">Nothing by that name here.</Cmdk.Empty>
            )
          )}
          {proposal && (
            <Cmdk.Item
              // Whatever the words are like: it is they that were read.
              forceMount
              value="proposal"
              onSelect={() => {
                setOpen(false);
                proposal.run();
              }}
              className="cursor-pointer rounded px-3 py-2 data-[selected=true]:bg-sail-wash"
            >
              {proposal.sentence && (
                <>
                  <span className="text-xs text-soft">Make the rule say</span>
                  <span className="block font-serif text-lg leading-snug">{proposal.sentence}</span>
                </>
              )}
              {proposal.designs.length > 0 && (
                <>
                  <span className="text-xs text-soft">Change the message, as the stage shows it</span>
                  <span className="block font-serif text-lg leading-snug">{proposal.designs.join('; ')}</span>
                </>
              )}
              {proposal.rest && (
                <span className="block text-xs text-hold">▲ Not understood: {proposal.rest}</span>
              )}
            </Cmdk.Item>
          )}
          {[...groups]
            .filter(([name]) => name !== 'Palette')
            .reverse()
            .map(([name, commands]) => (
              <Cmdk.Group
                key={name}
                heading={name}
                className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-xs [&_[cmdk-group-heading]]:text-soft"
              >
                {commands.map(({ id, label, keys, run }) => (
                  <Cmdk.Item
                    key={id}
                    value={`${label} ${id}`}
                    onSelect={() => {
                      setOpen(false);
                      run();
                    }}
                    className="flex h-9 cursor-pointer items-center justify-between rounded px-3 data-[selected=true]:bg-sail-wash"
                  >
                    {label}
                    {keys && <KeyHint keys={keys} className="text-soft" />}
                  </Cmdk.Item>
                ))}
              </Cmdk.Group>
            ))}
        </Cmdk.List>
      </Cmdk.Dialog>
    </>
  );
}
