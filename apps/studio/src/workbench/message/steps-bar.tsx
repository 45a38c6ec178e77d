import type { StepRole } from '@velarium/contract';
import { freshId, newBlock, STEP_ROLE_WORDS, stepName } from '@velarium/core';
import { ArrowLeft, ArrowRight, Plus, Trash2 } from 'lucide-react';
import { IconButton } from '../../ui/button.tsx';
import { Menu } from '../../ui/menu.tsx';
import { useWorkbench, useWorkbenchLater, useWorkbenchStore } from '../store.ts';

/** The steps of the message: shown, added, ordered, taken away. */
export function StepsBar() {
  const store = useWorkbenchStore();
  const { editMessage, showStep } = store.getState();
  const message = useWorkbenchLater((state) => state.document.message);
  const stepId = useWorkbench((state) => state.stepId);
  const canEdit = useWorkbench((state) => state.canEdit);
  const at = message.steps.findIndex(({ id }) => id === stepId);
  const add = (role: StepRole) => {
    const id = freshId(message, role === 'success' ? 'thanks' : role === 'refused' ? 'no' : 'step');
    const heading = { ...newBlock('heading'), id: freshId(message, 'heading') };
    editMessage((old) => ({ ...old, steps: [...old.steps, { id, role, blocks: [heading] }] }), `add.${id}`);
    showStep(id);
  };
  const move = (by: -1 | 1) =>
    editMessage((old) => {
      const steps = [...old.steps];
      const [step] = steps.splice(at, 1);
      if (step) steps.splice(at + by, 0, step);
      return { ...old, steps };
    }, 'step.move');
  const remove = () => {
    editMessage(
      (old) => ({ ...old, steps: old.steps.filter(({ id }) => id !== stepId) }),
      `remove.${stepId}`,
    );
    showStep(message.steps[0]?.id ?? '');
  };
  const missing = (['success', 'refused'] as const).filter(
    (role) => !message.steps.some((step) => step.role === role),
  );
  return (
    <div className="flex flex-wrap items-center gap-1">
      <fieldset className="flex min-w-0 flex-1 flex-wrap gap-1">
        <legend className="sr-only">Steps</legend>
        {message.steps.map(({ id }) => (
          <button
            key={id}
            type="button"
            aria-pressed={id === stepId}
            onClick={() => showStep(id)}
            className="h-7 rounded-full border border-line-strong px-2.5 hover:border-ink aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-sheet"
          >
            {stepName(message, id)}
          </button>
        ))}
        {canEdit && (
          <Menu
            items={[
              ...missing.map((role) => ({ label: STEP_ROLE_WORDS[role], onSelect: () => add(role) })),
              { label: 'A further step, reached by a button', onSelect: () => add('other') },
            ]}
          >
            <IconButton label="Add a step" className="border border-dashed border-line-strong">
              <Plus size={14} aria-hidden />
            </IconButton>
          </Menu>
        )}
      </fieldset>
      {canEdit && at > 0 && (
        <span className="flex">
          <IconButton label="Step before its neighbour" disabled={at <= 1} onClick={() => move(-1)}>
            <ArrowLeft size={13} aria-hidden />
          </IconButton>
          <IconButton
            label="Step after its neighbour"
            disabled={at === message.steps.length - 1}
            onClick={() => move(1)}
          >
            <ArrowRight size={13} aria-hidden />
          </IconButton>
          <IconButton label="Remove this step" onClick={remove}>
            <Trash2 size={13} aria-hidden />
          </IconButton>
        </span>
      )}
    </div>
  );
}
