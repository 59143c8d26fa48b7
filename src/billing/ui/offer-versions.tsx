'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import type { OfferId } from '@/core/ids';

type Props = {
  action: FormAction;
  offerId: OfferId;
  versions: { version: number; running: number; moving: number; made: string }[];
  previews: {
    version: number;
    count: number;
    before: string;
    after: string;
    first: string;
    last: string;
    amounts: { before: string; after: string; count: number }[];
  }[];
};

const people = (count: number): string => (count === 1 ? '1 member' : `${count} members`);

/** How many stay on which version of the offer, and moving them to the newest, with what that changes for how many. */
export function OfferVersions({ action, offerId, versions, previews }: Props) {
  const newest = versions[0];
  if (!newest) return null;
  const count = previews.reduce((sum, preview) => sum + preview.count, 0);
  return (
    <section>
      <h2 className="text-xl">Versions</h2>
      <p className="text-muted">
        Members keep the version they joined with. A new price makes version {newest.version + 1}, for those
        who join from then on.
      </p>
      <ul className="figures mt-3 divide-y divide-line border-y border-line">
        {versions.map(({ version, running, moving, made }) => (
          <li key={version} className="flex flex-wrap justify-between gap-x-6 py-2">
            <span>
              Version {version}
              {version === newest.version && ', the newest'}
              <span className="text-muted"> · made on {made}</span>
            </span>
            <span>
              {people(running)}
              {moving > 0 && (
                <span className="text-later">
                  {' '}
                  · {moving === running ? 'all move' : `${moving} move`} at their next period
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
      {count > 0 && (
        <details className="mt-4">
          <summary className="w-fit text-spruce underline">
            Move {people(count)} to version {newest.version}…
          </summary>
          <ActionForm
            action={action}
            label="Move members"
            className="mt-3 grid gap-4 rounded-card border border-line bg-surface p-5"
          >
            <FormMessage />
            <input type="hidden" name="id" value={offerId} />
            <input type="hidden" name="count" value={count} />
            {previews.map((preview) => (
              <div key={preview.version} className="figures">
                <p className="font-semibold">
                  {people(preview.count)} on version {preview.version}, from{' '}
                  {preview.first === preview.last
                    ? preview.first
                    : `their own day between ${preview.first} and ${preview.last}`}
                </p>
                <p>
                  Now: {preview.before} <br />
                  Then: {preview.after}
                </p>
                <ul className="mt-1 text-muted">
                  {preview.amounts.map((line) => (
                    <li key={`${line.before}>${line.after}`}>
                      {people(line.count)}: next charge {line.after} instead of {line.before}
                    </li>
                  ))}
                </ul>
              </div>
            ))}
            <p className="text-muted">
              Each is told by mail today. There is no trial and no joining fee. Until their day comes they can
              cancel.
            </p>
            <SubmitButton busy="Moving…" className="w-fit">
              Move {people(count)}
            </SubmitButton>
          </ActionForm>
        </details>
      )}
    </section>
  );
}
