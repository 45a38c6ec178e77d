import { useMutation } from '@tanstack/react-query';
import { LINK_DAYS, type MakePreviewLink, type SitePage } from '@velarium/contract';
import { counted } from '@velarium/core';
import { useState } from 'react';
import { makePreviewLink } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { copy } from '../ui/copy.ts';
import { Dialog } from '../ui/dialog.tsx';
import { Segments } from '../ui/segments.tsx';
import { Select } from '../ui/select.tsx';
import { Switch } from '../ui/switch.tsx';
import { tellProblem } from '../ui/toast.tsx';
import { when } from '../ui/when.ts';

interface PreviewLinkDialogProps {
  readonly siteId: string;
  readonly origin: string;
  readonly campaign: string;
  readonly pages: readonly SitePage[];
  readonly flush: () => Promise<void>;
  readonly onClose: () => void;
}

/** A link by which somebody without an account sees the draft on the site itself, until it ends. */
export function PreviewLinkDialog({
  siteId,
  origin,
  campaign,
  pages,
  flush,
  onClose,
}: PreviewLinkDialogProps) {
  const [path, setPath] = useState(pages[0]?.path ?? '/');
  const [days, setDays] = useState<MakePreviewLink['days']>(7);
  const [isWhole, setWhole] = useState(false);
  const [isBare, setBare] = useState(false);
  const make = useMutation({
    mutationFn: async () => {
      await flush();
      return makePreviewLink(siteId, { days, campaign: isWhole ? null : campaign, isBare });
    },
    onError: tellProblem,
  });
  const link = make.data && `${origin}${path}#velarium-preview=${make.data.token}`;
  /** A link that was made says something else. */
  const again =
    <Value,>(set: (value: Value) => void) =>
    (value: Value) => {
      make.reset();
      set(value);
    };
  return (
    <Dialog
      isOpen
      onClose={onClose}
      title="A link for somebody else"
      description="Whoever has it sees the draft on the site, as it is when they open it, without an account. Nothing of it is counted."
    >
      <div className="grid gap-4">
        <Select
          label="Page"
          value={path}
          options={pages
            .slice(0, 200)
            .map((page) => ({ value: page.path, label: `${page.title}, ${page.path}` }))}
          onChange={setPath}
        />
        <Segments
          label="What they see"
          value={isWhole ? 'whole' : 'one'}
          options={[
            { value: 'one', label: 'This draft among what runs' },
            { value: 'whole', label: 'Every draft of the site' },
          ]}
          onChange={again((value: 'one' | 'whole') => setWhole(value === 'whole'))}
        />
        <Segments
          label="Leads somewhere for"
          value={String(days)}
          options={LINK_DAYS.map((value) => ({ value: String(value), label: counted(value, 'day') }))}
          onChange={again((value: string) => setDays(Number(value) as MakePreviewLink['days']))}
        />
        <Switch
          label="With the panel"
          hint="It says why each message shows or does not. Without it they see what visitors see."
          isOn={!isBare}
          onChange={again((isOn: boolean) => setBare(!isOn))}
        />
        {link && make.data && (
          <div className="grid gap-1">
            <code className="block max-h-24 overflow-auto rounded border border-line-strong bg-sheet p-3 text-xs break-all select-all">
              {link}
            </code>
            <p className="text-soft">
              It ends {when.format(new Date(make.data.expiresAt))}, and cannot be taken back before.
            </p>
          </div>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Done</Button>
          {link ? (
            <Button tone="main" onClick={() => copy(link)}>
              Copy the link
            </Button>
          ) : (
            <Button tone="main" isBusy={make.isPending} onClick={() => make.mutate()}>
              Make the link
            </Button>
          )}
        </div>
      </div>
    </Dialog>
  );
}
