import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { BlockOf, FollowUp, WrittenMail } from '@velarium/contract';
import { followUpSchema } from '@velarium/contract';
import { isSame, languagesOf, mailIn } from '@velarium/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { followUpQuery, saveFollowUp } from '../../api/deliveries.ts';
import { sitesQuery } from '../../api/queries.ts';
import { useSession } from '../../app/use-session.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { cx } from '../../ui/cx.ts';
import { Dialog } from '../../ui/dialog.tsx';
import { NumberField } from '../../ui/number-field.tsx';
import { Segments } from '../../ui/segments.tsx';
import { Switch } from '../../ui/switch.tsx';
import { TextArea } from '../../ui/text-area.tsx';
import { tell, tellProblem } from '../../ui/toast.tsx';
import { useOverTheirs } from '../../ui/use-over-theirs.ts';
import { useWorkbench } from '../store.ts';
import { newConfirmation, newNotice, newWelcome } from './beginnings.ts';
import { MailEditor } from './mail-editor.tsx';
import { MailPreview } from './mail-preview.tsx';
import { WrittenMailEditor } from './written-mail.tsx';

/** Which part is open: the confirmation, a mail of the series by its place, or the notice. */
type Part = 'confirmation' | 'notice' | number;

interface FollowUpDialogProps {
  readonly campaignId: string;
  readonly form: Pick<BlockOf<'form'>, 'id' | 'fields'>;
  readonly followUp: FollowUp;
  readonly onClose: () => void;
}

/** What goes out once a form has been answered: the parts on the left, the words in the middle, the mail on the right. */
export function FollowUpDialog({ campaignId, form, followUp, onClose }: FollowUpDialogProps) {
  const queryClient = useQueryClient();
  const siteId = useWorkbench((state) => state.siteId);
  const { data: sites = [] } = useQuery(sitesQuery);
  const siteName = sites.find(({ id }) => id === siteId)?.name ?? '';
  const email = useSession()?.account.email ?? '';
  const [draft, setDraft] = useState(followUp);
  const overTheirs = useOverTheirs(followUp);
  const [part, setPart] = useState<Part>(followUp.welcome.length > 0 ? 0 : 'confirmation');
  const message = useWorkbench((state) => state.document.message);
  const languages = languagesOf(message);
  const [language, setLanguage] = useState(languages[0] ?? 'en');
  const [isChecked, setChecked] = useState(false);
  const [isLeaving, setLeaving] = useState(false);
  const set = (change: Partial<FollowUp>) => setDraft((old) => ({ ...old, ...change }));
  const read = followUpSchema.safeParse(draft);
  const faultAt = (path: string) =>
    isChecked && !read.success
      ? read.error.issues.find((issue) => issue.path.join('.').startsWith(path))?.message
      : undefined;
  const isChanged = !isSame(draft, followUp);
  const hasMailField = form.fields.some(({ kind }) => kind === 'email');
  const save = useMutation({
    mutationFn: async () => {
      const next = await overTheirs(draft, followUpQuery(campaignId, form.id), (there) => there);
      await saveFollowUp(campaignId, form.id, next);
      return next;
    },
    onSuccess: (saved) => {
      queryClient.setQueryData(followUpQuery(campaignId, form.id).queryKey, saved);
      tell('Saved. It holds for every answer from now on.');
      onClose();
    },
    onError: tellProblem,
  });
  const setWelcome = (at: number, change: Partial<FollowUp['welcome'][number]>) =>
    set({ welcome: draft.welcome.map((one, n) => (n === at ? { ...one, ...change } : one)) });
  const editor = (
    written: WrittenMail,
    isConfirmation: boolean,
    path: string,
    onChange: (written: WrittenMail) => void,
  ) => (
    <WrittenMailEditor
      written={written}
      languages={languages}
      language={language}
      onLanguage={setLanguage}
      onChange={onChange}
      editor={(mail, of, onMail) => (
        <MailEditor
          key={`${path}.${of}`}
          mail={mail}
          isConfirmation={isConfirmation}
          fields={form.fields}
          language={languages.length > 1 ? language : undefined}
          faultOf={(what) => faultAt(`${path}.${of}.${what}`)}
          onChange={onMail}
        />
      )}
    />
  );
  const { confirmation, notice, welcome } = draft;
  const opened = typeof part === 'number' ? welcome[part] : undefined;
  const shown = part === 'confirmation' ? confirmation : opened;
  const mail = shown && mailIn(shown, language);
  return (
    <Dialog
      isOpen
      onClose={() => (isChanged && !isLeaving ? setLeaving(true) : onClose())}
      title="After an answer"
      className="w-[min(96vw,76rem)]"
    >
      <div className="grid h-[68vh] grid-cols-[12.5rem_minmax(0,1fr)_minmax(0,1.15fr)] gap-5">
        <nav aria-label="What goes out" className="grid content-start gap-1">
          <PartButton
            isOpen={part === 'confirmation'}
            onOpen={() => setPart('confirmation')}
            note={confirmation ? 'on' : 'off'}
          >
            Ask to confirm
          </PartButton>
          {welcome.map((one, at) => (
            <PartButton
              // biome-ignore lint/suspicious/noArrayIndexKey: a mail of a series is known by its place
              key={at}
              isOpen={part === at}
              onOpen={() => setPart(at)}
              note={one.afterDays === 0 ? 'at once' : `day ${one.afterDays}`}
            >
              {at === 0 ? 'Welcome mail' : `Mail ${at + 1}`}
            </PartButton>
          ))}
          <Button
            tone="quiet"
            className="justify-start"
            disabled={welcome.length >= 6}
            onClick={() => {
              set({ welcome: [...welcome, newWelcome(siteName, welcome.length)] });
              setPart(welcome.length);
            }}
          >
            <Plus size={14} aria-hidden /> {welcome.length === 0 ? 'A welcome mail' : 'One more mail'}
          </Button>
          <PartButton
            isOpen={part === 'notice'}
            onOpen={() => setPart('notice')}
            note={notice ? 'on' : 'off'}
          >
            Tell the team
          </PartButton>
          {!hasMailField && (
            <p className="mt-3 text-xs text-halt">
              This form asks for no mail address, so nothing can go to the person. Add the field first.
            </p>
          )}
        </nav>
        <div className="grid content-start gap-3 overflow-y-auto px-1 pb-2">
          {part === 'confirmation' && (
            <>
              <Switch
                label="Ask to confirm first"
                hint="Until they press the button in this mail, nothing else is sent to them."
                isOn={confirmation !== null}
                onChange={(is) => set({ confirmation: is ? newConfirmation(siteName) : null })}
              />
              {confirmation && (
                <>
                  <div className="grid grid-cols-2 gap-2">
                    <NumberField
                      label="The link ends after"
                      unit="days"
                      min={1}
                      max={30}
                      value={confirmation.endsAfterDays}
                      onChange={(endsAfterDays) => set({ confirmation: { ...confirmation, endsAfterDays } })}
                    />
                    <NumberField
                      label="One reminder after"
                      unit="days"
                      min={1}
                      max={14}
                      placeholder="none"
                      value={confirmation.remindAfterDays ?? undefined}
                      onChange={(remindAfterDays) =>
                        set({ confirmation: { ...confirmation, remindAfterDays } })
                      }
                      onClear={() => set({ confirmation: { ...confirmation, remindAfterDays: null } })}
                    />
                  </div>
                  {faultAt('confirmation.remindAfterDays') && (
                    <p className="text-xs font-medium text-halt">{faultAt('confirmation.remindAfterDays')}</p>
                  )}
                  {editor(confirmation, true, 'confirmation', (next) =>
                    set({ confirmation: { ...confirmation, ...next } }),
                  )}
                </>
              )}
            </>
          )}
          {typeof part === 'number' && opened && (
            <>
              <div className="flex items-end gap-2">
                <div className="flex-1">
                  <NumberField
                    label={confirmation ? 'Days after they confirmed' : 'Days after the answer'}
                    unit="days"
                    min={0}
                    max={90}
                    value={opened.afterDays}
                    onChange={(afterDays) => setWelcome(part, { afterDays })}
                  />
                </div>
                <IconButton
                  label="Remove this mail"
                  onClick={() => {
                    set({ welcome: welcome.filter((_one, n) => n !== part) });
                    setPart(welcome.length > 1 ? Math.max(0, part - 1) : 'confirmation');
                  }}
                >
                  <Trash2 size={14} aria-hidden />
                </IconButton>
              </div>
              {editor(opened, false, `welcome.${part}`, (next) => setWelcome(part, next))}
            </>
          )}
          {part === 'notice' && (
            <>
              <Switch
                label="Tell the team of every answer"
                hint="The person’s address is the one to reply to; pictures come with it."
                isOn={notice !== null}
                onChange={(is) => set({ notice: is ? newNotice(email) : null })}
              />
              {notice && (
                <>
                  <TextArea
                    label="Mailboxes, one a line"
                    value={notice.to.join('\n')}
                    onChange={(event) => set({ notice: { ...notice, to: event.target.value.split('\n') } })}
                    onBlur={() =>
                      set({ notice: { ...notice, to: notice.to.map((one) => one.trim()).filter(Boolean) } })
                    }
                  />
                  {faultAt('notice') && <p className="text-xs font-medium text-halt">{faultAt('notice')}</p>}
                  <Segments
                    label="When"
                    value={notice.rhythm}
                    options={[
                      { value: 'atOnce', label: 'At once' },
                      { value: 'daily', label: 'Once a day, all of them' },
                    ]}
                    onChange={(rhythm) => set({ notice: { ...notice, rhythm } })}
                  />
                </>
              )}
            </>
          )}
        </div>
        {mail ? (
          <MailPreview
            siteId={siteId}
            mail={mail}
            isConfirmation={part === 'confirmation'}
            // One that is not written in what was answered in goes out as the original.
            language={mail === shown?.mail ? (languages[0] ?? null) : language}
            reader={languages.length > 1 ? language : null}
          />
        ) : (
          <p className="grid place-items-center rounded border border-dashed border-line-strong text-soft">
            {part === 'notice' ? 'A plain mail with every field of the answer.' : 'No mail here yet.'}
          </p>
        )}
      </div>
      <div className="flex items-center justify-end gap-2 pt-4">
        <p role="status" className="mr-auto text-soft">
          {isLeaving
            ? 'What you changed is not saved.'
            : isChecked && !read.success
              ? `Not saved: ${read.error.issues[0]?.message}.`
              : 'It holds for every answer once it is saved; nothing needs publishing.'}
        </p>
        {isLeaving && (
          <Button tone="halt" onClick={onClose}>
            Throw it away
          </Button>
        )}
        <Button
          tone="main"
          isBusy={save.isPending}
          disabled={!isChanged}
          onClick={() => {
            setLeaving(false);
            setChecked(true);
            if (read.success) save.mutate();
          }}
        >
          Save
        </Button>
      </div>
    </Dialog>
  );
}

interface PartButtonProps {
  readonly isOpen: boolean;
  readonly onOpen: () => void;
  readonly note: string;
  readonly children: string;
}

const PartButton = ({ isOpen, onOpen, note, children }: PartButtonProps) => (
  <button
    type="button"
    aria-current={isOpen || undefined}
    onClick={onOpen}
    className={cx(
      'flex h-9 items-center justify-between gap-2 rounded border-l-2 px-3 text-left',
      isOpen ? 'border-sail bg-sail-wash' : 'border-line hover:bg-sail-wash',
    )}
  >
    <span className="font-medium">{children}</span>
    <span className="text-xs text-soft">{note}</span>
  </button>
);
