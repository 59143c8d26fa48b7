'use client';

import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import type { OfferId } from '@/core/ids';
import { desk } from '@/words/desk';

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

const people = (count: number): string => desk('desk.count-members', { count });

/** How many stay on which version of the offer, and moving them to the newest, with what that changes for how many. */
export function OfferVersions({ action, offerId, versions, previews }: Props) {
  const newest = versions[0];
  if (!newest) return null;
  const count = previews.reduce((sum, preview) => sum + preview.count, 0);
  return (
    <section>
      <h2 className="text-xl">{desk('desk-money.versions')}</h2>
      <p className="text-muted">
        {desk('desk-money.members-keep-the-version-they', { version: newest.version + 1 })}
      </p>
      <ul className="figures mt-3 divide-y divide-line border-y border-line">
        {versions.map(({ version, running, moving, made }) => (
          <li key={version} className="flex flex-wrap justify-between gap-x-6 py-2">
            <span>
              {version === newest.version
                ? desk('desk-money.version-newest', { version })
                : desk('desk-money.version', { version })}
              <span className="text-muted"> {desk('desk-money.made-on', { made })}</span>
            </span>
            <span>
              {people(running)}
              {moving > 0 && (
                <span className="text-later">
                  {' '}
                  {moving === running
                    ? desk('desk-money.all-move')
                    : desk('desk-money.some-move', { count: moving })}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
      {count > 0 && (
        <details className="mt-4">
          <summary className="w-fit text-spruce underline">
            {desk('desk-money.move-to-version', { members: people(count), version: newest.version })}
          </summary>
          <ActionForm
            action={action}
            label={desk('desk-money.move-members')}
            className="mt-3 grid gap-4 rounded-card border border-line bg-surface p-5"
          >
            <FormMessage />
            <input type="hidden" name="id" value={offerId} />
            <input type="hidden" name="count" value={count} />
            {previews.map((preview) => (
              <div key={preview.version} className="figures">
                <p className="font-semibold">
                  {preview.first === preview.last
                    ? desk('desk-money.move-from-day', {
                        members: people(preview.count),
                        version: preview.version,
                        day: preview.first,
                      })
                    : desk('desk-money.move-between', {
                        members: people(preview.count),
                        version: preview.version,
                        first: preview.first,
                        last: preview.last,
                      })}
                </p>
                <p>
                  {desk('desk-money.now', { before: preview.before })} <br />
                  {desk('desk-money.then', { after: preview.after })}
                </p>
                <ul className="mt-1 text-muted">
                  {preview.amounts.map((line) => (
                    <li key={`${line.before}>${line.after}`}>
                      {desk('desk-money.next-charge-instead-of', {
                        members: people(line.count),
                        after: line.after,
                        before: line.before,
                      })}
                    </li>
                  ))}
                </ul>
              </div>
            ))}
            <p className="text-muted">{desk('desk-money.each-is-told-by-mail')}</p>
            <SubmitButton busy={desk('desk.moving')} className="w-fit">
              {desk('desk-money.move-label', { members: people(count) })}
            </SubmitButton>
          </ActionForm>
        </details>
      )}
    </section>
  );
}
