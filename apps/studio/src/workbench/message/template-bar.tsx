import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { Message } from '@velarium/contract';
import { changeTemplate } from '@velarium/core';
import { useState } from 'react';
import { keepTemplate, ownTemplatesQuery } from '../../api/library.ts';
import { TemplateGallery } from '../../library/template-gallery.tsx';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Menu } from '../../ui/menu.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';
import { useWorkbench, useWorkbenchLater, useWorkbenchStore } from '../store.ts';
import { NameDialog } from './name-dialog.tsx';

/** Another template for the same words, and this message as a template for others. */
export function TemplateBar() {
  const [isOpen, setOpen] = useState<'change' | 'keep' | null>(null);
  const store = useWorkbenchStore();
  const siteId = useWorkbench((state) => state.siteId);
  const name = useWorkbench((state) => state.name);
  const queryClient = useQueryClient();
  const keep = useMutation({
    mutationFn: (as: string) =>
      keepTemplate(siteId, { name: as, message: store.getState().document.message }),
    onSuccess: (kept) => {
      void queryClient.invalidateQueries({ queryKey: ownTemplatesQuery(siteId).queryKey });
      setOpen(null);
      tell(`“${kept.name}” is among the templates now.`);
    },
    onError: tellProblem,
  });
  return (
    <>
      <Menu
        items={[
          { label: 'Put these words into another template', onSelect: () => setOpen('change') },
          { label: 'Keep this message as a template', onSelect: () => setOpen('keep') },
        ]}
      >
        <Button tone="quiet">Template …</Button>
      </Menu>
      {isOpen === 'change' && <ChangeTemplate onClose={() => setOpen(null)} />}
      {isOpen === 'keep' && (
        <NameDialog
          title="Keep this message as a template"
          description="New campaigns of this site can begin from it."
          action="Keep it"
          suggestion={name}
          isBusy={keep.isPending}
          onName={(as) => keep.mutate(as)}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

function ChangeTemplate({ onClose }: { readonly onClose: () => void }) {
  const store = useWorkbenchStore();
  const siteId = useWorkbench((state) => state.siteId);
  const message = useWorkbenchLater((state) => state.document.message);
  const [template, setTemplate] = useState<Message | null>(null);
  const change = template && changeTemplate(message, template);
  const apply = () => {
    if (!change) return;
    const { editMessage, showStep } = store.getState();
    editMessage(() => change.message, 'template');
    showStep(change.message.steps[0]?.id ?? '');
    tell('The words are in the new template. Undo brings the old one back.');
    onClose();
  };
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="Put these words into another template"
      description="Words go to blocks of their kind. What has no place there is listed before anything is lost."
      className="w-[min(94vw,62rem)]"
    >
      <TemplateGallery siteId={siteId} onChoose={({ message: next }) => setTemplate(next)} />
      <div className="sticky -bottom-6 -mx-6 mt-4 -mb-6 flex items-center gap-4 border-t border-line bg-paper px-6 py-4">
        <div className="grid max-h-32 min-w-0 flex-1 gap-1 overflow-y-auto" role="status">
          {!change && <span className="text-soft">Choose a template.</span>}
          {change && change.lost.length === 0 && '✓ Every word finds a place.'}
          {change && change.lostSettings.length > 0 && (
            <p className="text-soft">It takes away: {change.lostSettings.join(', ')}.</p>
          )}
          {change && change.lost.length > 0 && (
            <p>
              <span className="font-medium text-halt">▲ These words have no place there:</span>{' '}
              {change.lost.map((words) => `“${words.slice(0, 60)}”`).join(', ')}
            </p>
          )}
        </div>
        <Button tone="main" disabled={!change} onClick={apply}>
          Change the template
        </Button>
      </div>
    </Dialog>
  );
}
