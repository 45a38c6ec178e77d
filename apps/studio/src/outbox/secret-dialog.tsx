import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { tell } from '../ui/toast.tsx';

/** A signing secret, the one time it can be seen. */
export function SecretDialog({ secret, onClose }: { readonly secret: string; readonly onClose: () => void }) {
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="The signing secret"
      description="Give it to the other side, which tells by it that an event is from here (Standard Webhooks). It is shown this once."
    >
      <code className="block rounded border border-line-strong bg-sheet p-3 break-all select-all">
        {secret}
      </code>
      <div className="flex justify-end gap-2 pt-4">
        <Button
          onClick={async () => {
            await navigator.clipboard.writeText(secret);
            tell('Copied.');
          }}
        >
          Copy
        </Button>
        <Button tone="main" onClick={onClose}>
          I have it
        </Button>
      </div>
    </Dialog>
  );
}
