import type { Moment, Trigger } from '@velarium/contract';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';

export interface MomentEdits {
  change(change: Partial<Moment>, key: string): void;
  setTrigger(at: number, trigger: Trigger): void;
  add(trigger: Trigger): void;
  remove(at: number): void;
}

export const useMoment = (): Moment => useWorkbench((state) => state.document.rule.moment);

/** Changes of the moment; moving one mark is one step of undo however far it is dragged. */
export function useMomentEdits(): MomentEdits {
  const store = useWorkbenchStore();
  const edit = (change: (moment: Moment) => Moment, key: string) =>
    store.getState().editRule((rule) => ({ ...rule, moment: change(rule.moment) }), `moment.${key}`);
  return {
    change: (change, key) => edit((moment) => ({ ...moment, ...change }), key),
    setTrigger: (at, trigger) =>
      edit(
        (moment) => ({ ...moment, triggers: moment.triggers.map((old, n) => (n === at ? trigger : old)) }),
        `trigger.${at}`,
      ),
    add: (trigger) =>
      edit((moment) => ({ ...moment, triggers: [...moment.triggers, trigger] }), `add.${Date.now()}`),
    remove: (at) =>
      edit((moment) => ({ ...moment, triggers: moment.triggers.filter((_, n) => n !== at) }), `remove.${at}`),
  };
}
