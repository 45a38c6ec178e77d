import { useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Field } from '../../ui/field.tsx';

export interface NameDialogProps {
  readonly title: string;
  readonly description: string;
  readonly action: string;
  readonly suggestion: string;
  readonly isBusy: boolean;
  readonly onName: (name: string) => void;
  readonly onClose: () => void;
}

/** Asks for one name. */
export function NameDialog({
  title,
  description,
  action,
  suggestion,
  isBusy,
  onName,
  onClose,
}: NameDialogProps) {
  const [name, setName] = useState(suggestion);
  const trimmed = name.trim();
  return (
    <Dialog isOpen onClose={onClose} title={title} description={description}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          if (trimmed) onName(trimmed);
        }}
      >
        <Field
          label="Name"
          value={name}
          maxLength={120}
          autoFocus
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" tone="main" isBusy={isBusy} disabled={!trimmed} className="justify-self-end">
          {action}
        </Button>
      </form>
    </Dialog>
  );
}
