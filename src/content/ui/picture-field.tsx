'use client';

import { useState } from 'react';
import { MOST_PICTURE_BYTES } from '@/core/upload-bounds';
import { useProblem } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { sendFile } from '@/kit/send-file';
import type { PictureId } from '@/core/ids';
import { desk } from '@/words/desk';

/** A picture to choose, with what is chosen shown at once; or to take away. */
export function PictureField({
  name,
  label,
  pictureId,
  tooLarge,
  upload = '/desk/uploads/picture',
}: {
  name: string;
  label: string;
  pictureId: PictureId | null;
  /** Where pictures are sent. */
  upload?: string;
  /** What is said of a file beyond the bound, without sending it. */
  tooLarge: string;
}) {
  const [kept, setKept] = useState(pictureId);
  const [isGone, setGone] = useState(false);
  const [isSending, setSending] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [ofId, ofPicture] = [useProblem('pictureId'), useProblem(name)];
  const problem = ofId ?? ofPicture ?? refused;
  const choose = async (file: File): Promise<void> => {
    setRefused(null);
    if (file.size > MOST_PICTURE_BYTES) return setRefused(tooLarge);
    setSending(true);
    const sent = await sendFile<{ id: string }>(upload, file);
    setSending(false);
    if (!sent.ok)
      return setRefused(
        Object.values(sent.problems)[0] ?? desk('desk-content.the-picture-could-not-be-saved'),
      );
    setKept(sent.value.id);
    setGone(false);
  };
  const shown = kept && !isGone ? `/pictures/${kept}` : null;
  return (
    <div>
      <label className="mb-1 block font-semibold" htmlFor={`${name}-file`}>
        {label}
      </label>
      <input type="hidden" name={desk('desk-content.gone', { name })} value={isGone ? 'on' : ''} />
      <input
        type="hidden"
        name={desk('desk-content.id', { name })}
        value={kept && kept !== pictureId ? kept : ''}
      />
      {shown && (
        // oxlint-disable-next-line nextjs/no-img-element -- kept and served by ourselves, in its final size
        <img src={shown} alt="" className="mb-2 aspect-[5/2] w-full rounded-md object-cover" />
      )}
      <div className="flex flex-wrap items-center gap-2">
        <input
          id={`${name}-file`}
          type="file"
          accept="image/jpeg,image/png,image/webp,image/avif"
          aria-invalid={problem ? true : undefined}
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void choose(file);
          }}
          className="max-w-full text-[0.9375rem] file:mr-3 file:rounded-lg file:border file:border-edge/60 file:bg-surface file:px-3 file:py-1.5 file:font-semibold"
        />
        {kept && (
          <Button look="quiet" className="min-h-8" onClick={() => setGone(!isGone)}>
            {isGone ? desk('desk-content.keep-picture') : desk('desk-content.remove-picture')}
          </Button>
        )}
      </div>
      {isSending && (
        <p role="status" className="mt-1 text-[0.9375rem] text-muted">
          {desk('desk-content.sending-the-picture')}
        </p>
      )}
      {problem && <p className="mt-1 text-[0.9375rem] font-medium text-closed">{problem}</p>}
    </div>
  );
}
