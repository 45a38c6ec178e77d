import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Picture } from '@velarium/contract';
import { DRAWN_FILES, DRAWN_PICTURES, PICTURE_BUDGET } from '@velarium/core';
import { Trash2, Upload } from 'lucide-react';
import { useRef, useState } from 'react';
import { addPicture, changePicture, picturesQuery, removePicture } from '../api/library.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { cx } from '../ui/cx.ts';
import { Dialog } from '../ui/dialog.tsx';
import { Field } from '../ui/field.tsx';
import { tell, tellProblem } from '../ui/toast.tsx';

export interface PictureDialogProps {
  readonly siteId: string;
  readonly onClose: () => void;
  readonly onChoose: (picture: string, alt: string) => void;
}

/** The site's pictures: searched, uploaded, described, chosen. */
export function PictureDialog({ siteId, onClose, onChoose }: PictureDialogProps) {
  const queryClient = useQueryClient();
  // How often each is used may have changed since they were loaded to be drawn.
  const { data: pictures, isPending } = useQuery({ ...picturesQuery(siteId), refetchOnMount: 'always' });
  const [search, setSearch] = useState('');
  const [isOver, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const refresh = () => queryClient.invalidateQueries({ queryKey: picturesQuery(siteId).queryKey });
  const upload = useMutation({
    mutationFn: async (files: readonly File[]) => {
      for (const file of files) await addPicture(siteId, file);
      return files.length;
    },
    onSuccess: (count) =>
      tell(count === 1 ? 'The picture is in the library.' : `${count} pictures are in the library.`),
    onError: tellProblem,
    onSettled: refresh,
  });
  const remove = useMutation({
    mutationFn: (id: string) => removePicture(siteId, id),
    onError: tellProblem,
    onSettled: refresh,
  });
  const wanted = search.trim().toLowerCase();
  const fits = (...words: string[]) => words.join(' ').toLowerCase().includes(wanted);
  const own = (pictures ?? []).filter(({ name, alt }) => fits(name, alt));
  const drawn = Object.entries(DRAWN_PICTURES).filter(([name, alt]) => fits(name, alt));
  return (
    <Dialog isOpen onClose={onClose} title="Pictures" className="w-[min(94vw,56rem)]">
      <div className="grid gap-4">
        <div className="flex items-end gap-3">
          <Field
            label="Search"
            value={search}
            placeholder="By name or by what it shows"
            onChange={(event) => setSearch(event.target.value)}
            className="flex-1"
          />
          <input
            ref={input}
            type="file"
            multiple
            accept="image/png,image/jpeg,image/webp,image/avif,image/gif,image/svg+xml"
            aria-label="Pictures to upload"
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => {
              upload.mutate([...(event.target.files ?? [])]);
              event.target.value = '';
            }}
          />
          <Button tone="main" isBusy={upload.isPending} onClick={() => input.current?.click()}>
            <Upload size={15} aria-hidden />
            {upload.isPending ? 'Making its sizes …' : 'Upload'}
          </Button>
        </div>
        <section
          aria-label="The site’s own pictures"
          onDragOver={(event) => {
            event.preventDefault();
            setOver(true);
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(event) => {
            event.preventDefault();
            setOver(false);
            upload.mutate([...event.dataTransfer.files]);
          }}
          className={cx('rounded-md p-1', isOver && 'outline-2 outline-sail outline-dashed')}
        >
          <h3 className="mb-2 font-serif text-lg">Of the site</h3>
          {isPending && <p className="text-soft">Loading the pictures …</p>}
          {pictures && own.length === 0 && (
            <p className="text-soft">
              {wanted
                ? 'No picture of the site fits the search.'
                : 'None yet. Upload one, or drop it here. PNG, JPEG, WebP, AVIF, GIF and SVG are taken, up to 12 MB.'}
            </p>
          )}
          <ul className="grid grid-cols-4 gap-3">
            {own.map((picture) => (
              <OwnPicture
                key={picture.id}
                siteId={siteId}
                picture={picture}
                onChoose={(alt) => onChoose(picture.id, alt)}
                onRemove={() => remove.mutate(picture.id)}
              />
            ))}
          </ul>
        </section>
        <section aria-label="Drawings that come with Velarium">
          <h3 className="mb-2 font-serif text-lg">Drawings that come with Velarium</h3>
          <ul className="grid grid-cols-5 gap-3">
            {drawn.map(([name, alt]) => (
              <li key={name}>
                <button
                  type="button"
                  onClick={() => onChoose(`drawn:${name}`, alt)}
                  className="block w-full overflow-hidden rounded border border-line-strong text-left hover:border-ink"
                >
                  <img
                    src={DRAWN_FILES[`drawn:${name}`]?.path}
                    alt=""
                    className="aspect-3/2 w-full object-cover"
                  />
                  <span className="block truncate px-2 py-1 text-xs">{alt}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </Dialog>
  );
}

interface OwnPictureProps {
  readonly siteId: string;
  readonly picture: Picture;
  readonly onChoose: (alt: string) => void;
  readonly onRemove: () => void;
}

function OwnPicture({ siteId, picture, onChoose, onRemove }: OwnPictureProps) {
  const queryClient = useQueryClient();
  const [alt, setAlt] = useState(picture.alt);
  const save = useMutation({
    mutationFn: () => changePicture(siteId, picture.id, { name: picture.name, alt }),
    onError: tellProblem,
    onSettled: () => queryClient.invalidateQueries({ queryKey: picturesQuery(siteId).queryKey }),
  });
  const uses = picture.usedBy.length;
  return (
    <li className="grid content-start gap-1 rounded border border-line p-1.5">
      <button
        type="button"
        onClick={() => onChoose(alt)}
        className="block overflow-hidden rounded-sm hover:opacity-90"
      >
        <img
          src={`${picture.file.path}/${picture.file.widths[0]}`}
          alt={alt || picture.name}
          className="aspect-3/2 w-full object-cover"
        />
      </button>
      <div className="flex items-center gap-1">
        <span className="min-w-0 flex-1 truncate text-xs" title={picture.name}>
          {picture.name}
        </span>
        <IconButton
          label={uses > 0 ? `In use by ${picture.usedBy.join(', ')}` : `Remove ${picture.name}`}
          disabled={uses > 0}
          onClick={onRemove}
        >
          <Trash2 size={13} aria-hidden />
        </IconButton>
      </div>
      <p className="text-xs text-soft">
        {picture.file.width} × {picture.file.height},{' '}
        <span className={picture.weight > PICTURE_BUDGET ? 'font-medium text-halt' : undefined}>
          {Math.max(1, Math.round(picture.weight / 1000))} kB on a phone
        </span>
        , {uses === 0 ? 'not used' : `used ${uses === 1 ? 'once' : `${uses} times`}`}
      </p>
      <Field
        label="What it shows"
        value={alt}
        maxLength={300}
        placeholder="For those who cannot see it"
        onChange={(event) => setAlt(event.target.value)}
        onBlur={() => alt !== picture.alt && save.mutate()}
      />
    </li>
  );
}
