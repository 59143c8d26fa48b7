import { Link } from '@/kit/link';
import { CheckField, SelectField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = {
  /** How many members opened it on the site; null where that is not counted. */
  readers: number | null;
  canMail: boolean;
  mailed: {
    id: string;
    written: number;
    mails: { failed: number };
    opens: { opened: number; read: number } | null;
  } | null;
  maySee: boolean;
};

/** Fields of the editor by which a post is emailed as it is published; or how that went. */
export function PostMail({ readers, canMail, mailed, maySee }: Props) {
  if (!canMail && !mailed && readers === null) return null;
  return (
    <section className="rounded-card border border-line bg-surface p-4">
      {readers !== null && (
        <p className="figures mb-2 font-semibold">{desk('desk-letters.readers', { count: readers })}</p>
      )}
      {(canMail || mailed) && <h2 className="text-lg">{desk('desk-letters.by-mail')}</h2>}
      {mailed ? (
        <div className="figures mt-1 grid gap-1">
          <p>
            {desk('desk-letters.mailed', { count: mailed.written })}
            {mailed.mails.failed > 0 && ` · ${desk('desk-letters.failed', { count: mailed.mails.failed })}`}
          </p>
          {mailed.opens && <p className="text-muted">{desk('desk-letters.opened-read', mailed.opens)}</p>}
          {maySee && (
            <Link href={`/desk/members/letters/${mailed.id}`} className="text-spruce underline">
              {desk('desk-letters.its-letter')}
            </Link>
          )}
        </div>
      ) : !canMail ? null : (
        <div className="mt-2 grid gap-3">
          <CheckField
            name="byMail"
            label={desk('desk-letters.mail-it')}
            hint={desk('desk-letters.mail-it-hint')}
          />
          <SelectField name="closedGet" label={desk('desk-letters.closed-get')}>
            <option value="teaser">{desk('desk-letters.get-teaser')}</option>
            <option value="nothing">{desk('desk-letters.get-nothing')}</option>
          </SelectField>
        </div>
      )}
    </section>
  );
}
