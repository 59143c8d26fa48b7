import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { loggedMail, mailLog } from '@/mail/services/mail-log';
import { ListBar, Pager, StateChips } from '@/kit/list-bar';
import { MailTabs } from '@/mail/ui/mail-tabs';
import { ActionForm, FormMessage, SubmitButton } from '@/kit/action-form';
import { Drawer } from '@/kit/drawer';
import { Empty } from '@/kit/empty';
import { LifeMark } from '@/kit/state-mark';
import { Table } from '@/kit/table';
import { listPath, readListSearch } from '../../../money/query';
import { sendMailAgainAction } from '../../actions';
import { mailName } from '../mail-name';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

const MAIL_STATES = ['queued', 'sent', 'failed'] as const;

export const metadata: Metadata = { title: desk('desk-settings.sent-mail-settings') };

export default async function MailLogPage({ searchParams }: { searchParams: Search }) {
  const t = await deskWords();
  const staff = await requireStaff('manage members');
  const actor = await currentActor();
  const typed = await searchOf(searchParams);
  const asked = readListSearch(typed);
  const { rows, total, query, perPage } = await shown(mailLog(actor, { ...asked, letter: typed.letter }));
  const { state, search, page, letter } = query;
  const { open } = asked;
  const at = (changed: Record<string, string | number>): string =>
    listPath('/desk/settings/mail/log', { state, q: search, page, letter, ...changed });
  const one = open && !rows.some((row) => row.id === open) ? await loggedMail(actor, open) : null;
  const opened = rows.find((row) => row.id === open) ?? (one?.ok ? one.value : null);
  return (
    <>
      {staff.may('change settings') ? (
        <MailTabs here="log" hasLog />
      ) : (
        <h1 className="text-3xl" id="desk-main">
          {desk('desk-settings.mail')}
        </h1>
      )}
      <StateChips
        label={desk('desk.state')}
        chips={['' as const, ...MAIL_STATES].map((option) => ({
          href: at({ state: option, page: 1 }),
          isHere: state === option,
          mark: option === '' ? desk('desk.all') : <LifeMark t={t} state={`mail-${option}`} />,
        }))}
      />
      <ListBar
        search={search}
        searchLabel={desk('desk-settings.address-or-subject')}
        sort="newest"
        sorts={[]}
        keep={{ state, letter }}
        exports={[]}
      />
      <div className={opened ? 'grid items-start gap-x-8 xl:grid-cols-[1fr_28rem]' : undefined}>
        <div className="min-w-0">
          {rows.length === 0 ? (
            <div className="mt-5">
              <Empty title={desk('desk-settings.no-mail-here')}>
                {state || search || letter
                  ? desk('desk.nothing-matches-this-filter')
                  : desk('desk-settings.every-email-the-site-sends')}
              </Empty>
            </div>
          ) : (
            <Table
              heads={
                opened
                  ? [desk('desk.when'), desk('desk-settings.to'), desk('desk.state')]
                  : [
                      desk('desk.when'),
                      desk('desk-settings.to'),
                      desk('desk-settings.mail'),
                      desk('desk-settings.subject'),
                      desk('desk.state'),
                    ]
              }
            >
              {rows.map((row) => (
                <tr
                  key={row.id}
                  className="border-t border-line align-top aria-[current]:bg-sunken"
                  aria-current={row.id === open ? 'true' : undefined}
                >
                  <td className="py-2 pr-5 whitespace-nowrap">{t.dateTime(row.at)}</td>
                  <td className="py-2 pr-5">
                    <Link
                      href={at({ open: row.id })}
                      scroll={false}
                      className="font-semibold hover:underline"
                    >
                      {row.toAddress}
                    </Link>
                  </td>
                  {!opened && <td className="py-2 pr-5 whitespace-nowrap">{mailName(row.template)}</td>}
                  {!opened && <td className="py-2 pr-5">{row.subject}</td>}
                  <td className="py-2 whitespace-nowrap">
                    <LifeMark t={t} state={`mail-${row.state}`} />
                  </td>
                </tr>
              ))}
            </Table>
          )}
          <Pager page={page} total={total} rows={perPage} at={(n) => at({ page: n })} />
        </div>
        {opened && (
          <div className="mt-4">
            <Drawer
              title={opened.subject || mailName(opened.template)}
              label={mailName(opened.template)}
              closeHref={at({})}
            >
              <p className="mt-1 text-muted">
                <Sentence
                  words={desk('desk-settings.mail-written', {
                    email: opened.toAddress,
                    date: t.dateTime(opened.at),
                  })}
                  parts={{
                    link: (words) =>
                      opened.memberId ? (
                        <Link href={`/desk/members/${opened.memberId}`} className="text-spruce underline">
                          {words}
                        </Link>
                      ) : (
                        words
                      ),
                  }}
                />
              </p>
              {opened.lastError && (
                <p className="mt-3 rounded-md bg-closed-wash px-3 py-2 text-closed">
                  {desk('desk-settings.the-mail-server-did-not', { lastError: opened.lastError })}
                </p>
              )}
              {opened.state === 'failed' && (
                <ActionForm action={sendMailAgainAction} className="mt-3 grid gap-2">
                  <input type="hidden" name="id" value={opened.id} />
                  <SubmitButton busy={desk('desk.one-moment')} className="w-fit">
                    {desk('desk-settings.send-it-again')}
                  </SubmitButton>
                  <FormMessage />
                </ActionForm>
              )}
              <div className="mt-4 border-t border-line pt-4 break-words whitespace-pre-line">
                {opened.textBody}
              </div>
            </Drawer>
          </div>
        )}
      </div>
    </>
  );
}
