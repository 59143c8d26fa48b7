'use client';

import clsx from 'clsx';
import { Upload } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useId, useState } from 'react';
import { FILE_ENDINGS } from '@/core/content/media';
import { buttonClass } from '@/kit/button';
import { sendInPieces } from '@/kit/send-file';
import { desk } from '@/words/desk';

type Sending = { name: string; share: number; problem?: string; isDone?: boolean };
type Props = {
  /** The item whose file is replaced; left out, each file is a new item. */
  itemId?: string;
  className?: string;
  onDone?: (file: { itemId: string; title: string }) => void;
};

/** Takes files that are chosen or dropped here, and shows how far each has come. */
export function FileUpload({ itemId, className, onDone }: Props) {
  const router = useRouter();
  const id = useId();
  const [sending, setSending] = useState<Sending[]>([]);
  const [isOver, setOver] = useState(false);
  const set = (index: number, part: Partial<Sending>): void =>
    setSending((old) => old.map((one, at) => (at === index ? { ...one, ...part } : one)));
  const send = async (files: File[]): Promise<void> => {
    const chosen = itemId ? files.slice(0, 1) : files;
    setSending(chosen.map(({ name }) => ({ name, share: 0 })));
    for (const [index, file] of chosen.entries()) {
      const sent = await sendInPieces(file, itemId, (share) => set(index, { share }));
      if (sent.ok) {
        set(index, { share: 1, isDone: true });
        onDone?.(sent.value);
      } else set(index, { problem: Object.values(sent.problems)[0] });
    }
    router.refresh();
  };
  return (
    <div className={className}>
      <div
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          void send([...event.dataTransfer.files]);
        }}
        className={clsx(
          'flex flex-wrap items-center gap-x-4 gap-y-2 rounded-card border border-dashed px-5 py-4',
          isOver ? 'border-brass bg-sunken' : 'border-edge/60',
        )}
      >
        <label htmlFor={id} className={buttonClass('quiet', 'cursor-pointer focus-within:outline-2')}>
          <Upload className="size-4.5" aria-hidden />
          {itemId ? desk('desk-content.replace-file') : desk('desk-content.add-files')}
          <input
            id={id}
            type="file"
            multiple={!itemId}
            accept={FILE_ENDINGS.map((ending) => `.${ending}`).join(',')}
            className="sr-only"
            onChange={(event) => {
              const files = [...(event.target.files ?? [])];
              event.target.value = '';
              void send(files);
            }}
          />
        </label>
        <p className="text-muted">{desk('desk-content.drop-hint')}</p>
      </div>
      {sending.length > 0 && (
        <ul className="mt-3 grid gap-2" aria-live="polite">
          {sending.map((one, index) => (
            <li key={index} className="flex flex-wrap items-center gap-x-3">
              <span className="min-w-0 truncate font-semibold">{one.name}</span>
              {one.problem ? (
                <span className="font-medium text-closed">{one.problem}</span>
              ) : one.isDone ? (
                <span className="text-open">{desk('desk-content.file-added')}</span>
              ) : (
                <progress value={one.share} max={1} aria-label={one.name} className="w-48" />
              )}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
