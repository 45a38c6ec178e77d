import { useMutation } from '@tanstack/react-query';
import { WITHOUT_MEMORY } from '@velarium/contract/values';
import { countAfresh } from '../../../api/queries.ts';
import { Button } from '../../../ui/button.tsx';
import { NumberField } from '../../../ui/number-field.tsx';
import { Select } from '../../../ui/select.tsx';
import { tell, tellProblem } from '../../../ui/toast.tsx';
import { useWorkbench, useWorkbenchStore } from '../../store.ts';

const MEMORY_WORDS: Readonly<Record<(typeof WITHOUT_MEMORY)[number], string>> = {
  whenUncapped: 'Only if it needs no memory',
  always: 'Yes, whatever its caps',
  never: 'No',
};

/** Where nothing can be remembered. */
export function MemoryControl() {
  const store = useWorkbenchStore();
  const value = useWorkbench((state) => state.document.rule.limits.withoutMemory);
  return (
    <div className="grid gap-1">
      <Select
        label="Shows where nothing can be remembered"
        value={value}
        options={WITHOUT_MEMORY.map((one) => ({ value: one, label: MEMORY_WORDS[one] }))}
        onChange={(withoutMemory) =>
          store
            .getState()
            .editRule((rule) => ({ ...rule, limits: { ...rule.limits, withoutMemory } }), 'memory')
        }
      />
      <p className="text-xs text-soft">
        Private windows, blocked storage, no consent: caps across pages cannot be kept there.
      </p>
    </div>
  );
}

/** Visitors who never see it, so that what it does can be told from what would have happened anyway. */
export function HoldoutControl() {
  const store = useWorkbenchStore();
  const holdout = useWorkbench((state) => state.document.rule.limits.holdout);
  return (
    <div className="grid gap-1">
      <NumberField
        label="Held back from this share of visitors"
        unit="%"
        value={holdout}
        min={0}
        max={90}
        onChange={(next) =>
          store
            .getState()
            .editRule((rule) => ({ ...rule, limits: { ...rule.limits, holdout: next } }), 'holdout')
        }
      />
      <p className="text-xs text-soft">They are counted beside those who see it, by chance and for good.</p>
    </div>
  );
}

/** A new cap epoch: who has used up the old caps can see it again. */
export function AfreshControl() {
  const id = useWorkbench((state) => state.id);
  const canEdit = useWorkbench((state) => state.canEdit);
  const isPublished = useWorkbench((state) => state.campaignState !== 'draft');
  const afresh = useMutation({
    mutationFn: () => countAfresh(id),
    onSuccess: () => tell('Counting begins afresh: visitors who have used up its caps can see it again.'),
    onError: tellProblem,
  });
  if (!canEdit || !isPublished) return null;
  return (
    <div className="grid justify-items-start gap-1">
      <Button isBusy={afresh.isPending} onClick={() => afresh.mutate()}>
        Start counting afresh
      </Button>
      <p className="text-xs text-soft">
        Showings, closes and noes so far no longer count; conversions stay. It holds at once, without a
        launch, and cannot be taken back.
      </p>
    </div>
  );
}
