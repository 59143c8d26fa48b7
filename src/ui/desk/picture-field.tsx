'use client';

import { useEffect, useState } from 'react';
import { useProblem } from '../kit/action-form';
import { Button } from '../kit/button';

/** A picture to choose, with what is chosen shown at once; or to take away. */
export function PictureField({
  name,
  label,
  pictureId,
}: {
  name: string;
  label: string;
  pictureId: string | null;
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [isGone, setGone] = useState(false);
  const problem = useProblem(name);
  useEffect(
    () => () => {
      if (chosen) URL.revokeObjectURL(chosen);
    },
    [chosen],
  );
  const shown = chosen ?? (pictureId && !isGone ? `/pictures/${pictureId}` : null);
  return (
    <div>
      <label className="mb-1 block font-semibold" htmlFor={`${name}-file`}>
        {label}
      </label>
      <input type="hidden" name={`${name}Gone`} value={isGone && !chosen ? 'on' : ''} />
      {shown && (
        // eslint-disable-next-line @next/next/no-img-element -- kept and served by ourselves, in its final size
        <img src={shown} alt="" className="mb-2 aspect-[5/2] w-full rounded-md object-cover" />
      )}
      <div className="flex flex-wrap items-center gap-2">
        <input
          id={`${name}-file`}
          type="file"
          name={name}
          accept="image/jpeg,image/png,image/webp,image/avif"
          aria-invalid={problem ? true : undefined}
          onChange={(event) => {
            const file = event.target.files?.[0];
            setChosen(file ? URL.createObjectURL(file) : null);
          }}
          className="max-w-full text-[0.9375rem] file:mr-3 file:rounded-lg file:border file:border-edge/60 file:bg-surface file:px-3 file:py-1.5 file:font-semibold"
        />
        {pictureId && !chosen && (
          <Button look="quiet" className="min-h-8" onClick={() => setGone(!isGone)}>
            {isGone ? 'Keep the picture' : 'Take the picture away'}
          </Button>
        )}
      </div>
      {problem && <p className="mt-1 text-[0.9375rem] font-medium text-closed">{problem}</p>}
    </div>
  );
}
