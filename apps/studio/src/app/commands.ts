import { useEffect, useRef } from 'react';
import { create } from 'zustand';
import { isLetterKey, useLetterKeys } from './letter-keys.ts';

export interface Command {
  readonly id: string;
  readonly label: string;
  /** As `event.key` names it, with `Mod+` for Ctrl or Command and `Shift+`: `n`, `Mod+z`, `Mod+Shift+z`. */
  readonly keys?: string;
  readonly run: () => void;
}

/** What free words typed into the palette would do, said back before it is done. */
interface Proposal {
  /** The whole sentence of the rule it would make; empty where no rule changes. */
  readonly sentence: string;
  /** What else would change, each in words. */
  readonly designs: readonly string[];
  /** What was typed and not understood. */
  readonly rest: string;
  /** Shows what it would look like, until what it gives back is called. */
  readonly show: () => () => void;
  readonly run: () => void;
}
/** A wish that cannot be had, and why. */
interface Refusal {
  readonly refused: string;
}
type Reader = (typed: string) => Proposal | Refusal | undefined;

interface CommandStore {
  /** Reads free words where the place one is in can; one place at a time. */
  readonly reader: Reader | undefined;
  setReader(reader: Reader | undefined): void;
  readonly groups: ReadonlyMap<string, readonly Command[]>;
  setGroup(name: string, commands: readonly Command[]): void;
  dropGroup(name: string): void;
}

export const useCommandStore = create<CommandStore>((set) => ({
  reader: undefined,
  setReader: (reader) => set({ reader }),
  groups: new Map(),
  setGroup: (name, commands) => set(({ groups }) => ({ groups: new Map(groups).set(name, commands) })),
  dropGroup: (name) =>
    set(({ groups }) => {
      const left = new Map(groups);
      left.delete(name);
      return { groups: left };
    }),
}));

/**
 * Reads free words typed into the palette while the calling component is on screen. `shape` stands for what the reading
 * depends on: when it changes, what is in the palette is read again.
 */
export function useReader(reader: Reader, shape: string): void {
  const latest = useRef(reader);
  latest.current = reader;
  // biome-ignore lint/correctness/useExhaustiveDependencies: see `shape` above.
  useEffect(() => {
    const { setReader } = useCommandStore.getState();
    setReader((typed) => latest.current(typed));
    return () => setReader(undefined);
  }, [shape]);
}

/** Offers commands while the calling component is on screen: in the palette and by their keys. */
export function useCommands(group: string, commands: readonly Command[]): void {
  const { setGroup, dropGroup } = useCommandStore.getState();
  const latest = useRef(commands);
  latest.current = commands;
  const shape = commands.map(({ id, label }) => `${id}:${label}`).join('|');
  // Registered once per shape; what a command runs is always the latest.
  // biome-ignore lint/correctness/useExhaustiveDependencies: `shape` stands for the commands' identity.
  useEffect(() => {
    setGroup(
      group,
      latest.current.map((command) => ({
        ...command,
        run: () => latest.current.find(({ id }) => id === command.id)?.run(),
      })),
    );
    return () => dropGroup(group);
  }, [group, shape, setGroup, dropGroup]);
}

/** The letter on a key as Latin keyboards have it: with another script `event.key` is none that a command is named by. */
const latinOf = ({ key, code }: KeyboardEvent): string =>
  (/^\P{ASCII}$/u.test(key) && /^Key([A-Z])$/.exec(code)?.[1]) || key;

/** The command keys an event stands for, in the notation of {@link Command.keys}. */
export function keysOf(event: KeyboardEvent): string {
  const key = event.key.length === 1 ? latinOf(event).toLowerCase() : event.key;
  const isMod = event.ctrlKey || event.metaKey;
  // With Alt they are the browser's own, or write a sign.
  const alt = event.altKey ? 'Alt+' : '';
  return `${isMod ? 'Mod+' : ''}${alt}${event.shiftKey && (isMod || event.key.length > 1) ? 'Shift+' : ''}${key}`;
}

/** Looks through shadow roots: a message on the stage is typed into inside one. */
const isTyping = (event: KeyboardEvent): boolean => {
  const element = event.composedPath()[0] as HTMLElement | undefined;
  // In a field that cannot be changed nobody types.
  if ((element as HTMLInputElement | undefined)?.readOnly) return false;
  return element?.isContentEditable === true || /^(INPUT|TEXTAREA|SELECT)$/.test(element?.tagName ?? '');
};

/** Dialogs, menus and lists of choices that lie over the place; a list that stands in it is none, and no tooltip is. */
const IN_FRONT =
  '[role=dialog],[role=alertdialog],[role=menu],[data-radix-popper-content-wrapper]:not(:has([role=tooltip]))';

/** What these keys do in a field of text is what somebody who types there means by them. */
const KEYS_OF_FIELDS = /^Mod\+(Shift\+)?([acvx]|Arrow(Up|Down|Left|Right)|Home|End|Backspace|Delete)$/;

/** The commands of every place, whose keys a place may give another meaning. */
const OF_THE_FRAME: ReadonlySet<string> = new Set(['Go to', 'Account', 'Palette']);

/** Runs the command an event's keys belong to. Plain letters are left alone while somebody types. */
export function runByKeys(event: KeyboardEvent): boolean {
  const keys = keysOf(event);
  if (event.defaultPrevented) return false;
  if (isTyping(event) && (!keys.startsWith('Mod+') || KEYS_OF_FIELDS.test(keys))) return false;
  if (isLetterKey(keys) && !useLetterKeys.getState().isOn) return false;
  // What lies in front keeps all keys to itself.
  if (document.querySelector(IN_FRONT)) return false;
  const groups = [...useCommandStore.getState().groups];
  const frameLast = groups.sort(([a], [b]) => Number(OF_THE_FRAME.has(a)) - Number(OF_THE_FRAME.has(b)));
  for (const [, commands] of frameLast) {
    const command = commands.find((one) => one.keys === keys);
    if (!command) continue;
    // Ahead of whatever the focus is in: a list would take Ctrl + Enter for its own Enter.
    event.preventDefault();
    event.stopPropagation();
    command.run();
    return true;
  }
  return false;
}

/** Keys as a person reads them. */
export const keysWords = (keys: string): string =>
  keys
    .replace('Mod', 'Ctrl')
    .replaceAll('+', ' + ')
    .replace(/\b[a-z]$/, (k) => k.toUpperCase());
