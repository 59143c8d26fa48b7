import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { cache } from 'react';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { ConfirmAction } from '@/kit/confirm-action';
import { letterPage, newLetter, type LetterOnDesk } from '@/members/services/letters';
import { LetterForm, LetterTo } from '@/members/ui/letter-form';
import { desk } from '@/words/desk';
import {
  deleteLetterAction,
  holdLetterAction,
  saveLetterAction,
  sendLetterAction,
  tryLetterAction,
} from '../actions';

type Props = { params: Promise<{ id: string }>; searchParams: Search };

const pageFor = cache(async (id: string) => letterPage(await currentActor(), id));

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  const { id } = await params;
  const found = id === 'new' ? null : await pageFor(id);
  return {
    title: found?.ok
      ? (found.value.item?.title ?? found.value.letter.subject)
      : desk('desk-letters.new-title'),
  };
}

/** The address of the list of members that a filter leaves. */
function listHref(filter: Record<string, string>): string {
  const query = new URLSearchParams(Object.entries(filter).filter(([, value]) => value !== ''));
  return `/desk/members?${query}`;
}

export default async function LetterPage({ params, searchParams }: Props) {
  const { id } = await params;
  const head = (title: string) => (
    <>
      <p>
        <Link href="/desk/members/letters" className="text-spruce underline">
          {desk('desk-letters.title')}
        </Link>
      </p>
      <h1 className="mt-1 text-3xl break-words" id="desk-main">
        {title}
      </h1>
    </>
  );
  if (id === 'new') {
    await requireStaff('manage members');
    const { filter, body, reach } = await shown(
      newLetter(await currentActor(), await searchOf(searchParams)),
    );
    return (
      <>
        {head(desk('desk-letters.new-title'))}
        <LetterForm
          action={saveLetterAction}
          letter={{ id: '', version: null, subject: '', body, toAddresses: false }}
          filter={filter}
          href={listHref(filter)}
          reach={reach}
        />
      </>
    );
  }
  const staff = await requireStaff('see members');
  const page = await shown(pageFor(id));
  const { letter, item, reach } = page;
  const mayManage = staff.may('manage members');
  const isDraft = letter.state === 'draft' && mayManage;
  return (
    <>
      {head(item?.title ?? letter.subject)}
      <p className="text-muted">
        {desk(`desk-letters.kind-${letter.kind}`)} · {desk(`desk-letters.state-${letter.state}`)}
      </p>
      {isDraft ? (
        <div className="grid grid-cols-1 items-start gap-10 xl:grid-cols-[minmax(0,42rem)_minmax(0,1fr)]">
          <LetterForm
            key={letter.version}
            action={saveLetterAction}
            letter={letter}
            filter={{}}
            href={listHref(letter.filter)}
            reach={reach}
          />
          <Draft {...page} />
        </div>
      ) : (
        <Course {...page} mayManage={mayManage} />
      )}
    </>
  );
}

/** What is done with a letter that was not sent yet. */
function Draft({ letter, reach, preview }: LetterOnDesk) {
  const version = String(letter.version);
  return (
    <div className="mt-5 grid grid-cols-1 gap-4 rounded-card border border-line bg-surface p-5">
      <h2 className="text-xl">{desk('desk-letters.preview')}</h2>
      {preview && (
        <div className="rounded-md border border-line bg-paper p-4">
          <p className="font-semibold break-words">{preview.subject}</p>
          <div className="prose mt-3" dangerouslySetInnerHTML={{ __html: preview.html }} />
        </div>
      )}
      <p className="text-muted">{desk('desk-letters.saved')}</p>
      <ActionForm action={tryLetterAction}>
        <input type="hidden" name="id" value={letter.id} />
        <SubmitButton busy={desk('desk-letters.trying')} look="quiet" className="w-fit">
          {desk('desk-letters.try')}
        </SubmitButton>
        <FormMessage />
      </ActionForm>
      {reach.members + reach.addresses > 0 && (
        <ConfirmAction
          action={sendLetterAction}
          fields={{ id: letter.id, version }}
          summary={desk('desk-letters.send')}
          question={desk('desk-letters.send-question', { count: reach.members + reach.addresses })}
          yes={desk('desk-letters.send-now')}
          busy={desk('desk-letters.sending')}
        />
      )}
      <ConfirmAction
        action={deleteLetterAction}
        fields={{ id: letter.id }}
        summary={desk('desk-letters.delete')}
        question={desk('desk-letters.delete-question')}
        yes={desk('desk-letters.delete')}
        busy={desk('desk.deleting')}
      />
    </div>
  );
}

/** How far a letter has got. */
async function Course({
  letter,
  item,
  reach,
  mails,
  opens,
  mayManage,
}: LetterOnDesk & { mayManage: boolean }) {
  const t = await deskWords();
  const isUnderWay = letter.state === 'sending' || letter.state === 'paused';
  const most = reach.members + reach.addresses;
  return (
    <div className="mt-5 grid max-w-2xl grid-cols-1 gap-4 rounded-card border border-line bg-surface p-5">
      {/* Who is in the list may be others by the time it has been sent. */}
      {isUnderWay && (
        <LetterTo href={listHref(letter.filter)} reach={reach} isPost={letter.kind === 'post'} />
      )}
      {isUnderWay && reach.addresses > 0 && (
        <p>
          <Link href="/desk/members/addresses" className="text-spruce underline">
            {desk('desk-letters.also-to-addresses', { count: reach.addresses })}
          </Link>
        </p>
      )}
      {item && (
        <p>
          <Link href={`/desk/content/items/${item.id}`} className="text-spruce underline">
            {item.title}
          </Link>
          {'. '}
          {desk(`desk-letters.closed-${letter.closedGet}`)}
          {letter.state === 'sending' && letter.written === 0 && ` ${desk('desk-letters.waits-for-post')}`}
        </p>
      )}
      <div className="figures grid gap-2">
        <p className="font-semibold">
          {isUnderWay
            ? desk('desk-letters.progress', { written: t.count(letter.written), count: t.count(most) })
            : desk('desk-letters.mailed', { count: letter.written })}
        </p>
        {isUnderWay && (
          <progress
            value={letter.written}
            max={Math.max(1, most)}
            className="w-full max-w-80"
            aria-label={desk('desk-letters.state-sending')}
          />
        )}
        <p className="text-muted">
          {[
            desk('desk-letters.delivered', { count: mails.sent }),
            ...(mails.queued > 0 ? [desk('desk-letters.queued', { count: mails.queued })] : []),
          ].join(' · ')}
          {mails.failed > 0 && (
            <>
              {' · '}
              <Link
                href={`/desk/settings/mail/log?state=failed&letter=${letter.id}`}
                className="text-spruce underline"
              >
                {desk('desk-letters.failed', { count: mails.failed })}
              </Link>
            </>
          )}
        </p>
        {opens && <p className="text-muted">{desk('desk-letters.opened-read', opens)}</p>}
      </div>
      {mayManage && isUnderWay && (
        <div className="flex flex-wrap items-start gap-3">
          <ActionForm action={holdLetterAction}>
            <input type="hidden" name="id" value={letter.id} />
            <input type="hidden" name="deed" value={letter.state === 'paused' ? 'resume' : 'pause'} />
            <SubmitButton busy={desk('desk.saving')} look="quiet">
              {desk(letter.state === 'paused' ? 'desk-letters.resume' : 'desk-letters.pause')}
            </SubmitButton>
            <FormMessage />
          </ActionForm>
          <ConfirmAction
            action={holdLetterAction}
            fields={{ id: letter.id, deed: 'stop' }}
            summary={desk('desk-letters.stop')}
            question={desk('desk-letters.stop-question')}
            yes={desk('desk-letters.state-stopped')}
            busy={desk('desk.saving')}
          />
        </div>
      )}
    </div>
  );
}
