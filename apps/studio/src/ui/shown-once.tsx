import { Button } from './button.tsx';
import { copy } from './copy.ts';
import { Dialog } from './dialog.tsx';

export interface ShownOnceProps {
  readonly title: string;
  readonly description: string;
  readonly secret: string;
  readonly onClose: () => void;
}

/** A secret, the one time it can be seen. */
export function ShownOnce({ title, description, secret, onClose }: ShownOnceProps) {
  return (
    <Dialog isOpen onClose={onClose} title={title} description={description}>
      <code className="block rounded border border-line-strong bg-sheet p-3 break-all select-all">
        {secret}
      </code>
      <div className="flex justify-end gap-2 pt-4">
        <Button onClick={() => copy(secret)}>Copy</Button>
        <Button tone="main" onClick={onClose}>
          I have it
        </Button>
      </div>
    </Dialog>
  );
}
