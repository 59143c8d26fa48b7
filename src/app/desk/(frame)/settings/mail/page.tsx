import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { MAILS } from '@/mail/catalogue';
import { mailSettings } from '@/desk/services/site-settings';
import { MailTabs } from '@/mail/ui/mail-tabs';
import { SenderForm } from '@/mail/ui/mail-forms';
import { Table } from '@/kit/table';
import { saveSenderAction } from '../actions';
import { mailName } from './mail-name';
import { desk } from '@/words/desk';

export const metadata: Metadata = { title: desk('desk-settings.mail-settings') };

export default async function MailPage() {
  const staff = await requireStaff('change settings');
  const { senderName, senderAddress, mails } = await shown(mailSettings(await currentActor()));
  return (
    <>
      <MailTabs here="mails" hasLog={staff.may('manage members')} />
      <SenderForm action={saveSenderAction} name={senderName} address={senderAddress} />
      <Table
        heads={[
          desk('desk-settings.mail'),
          desk('desk-settings.when-it-is-sent'),
          desk('desk-settings.your-words'),
          desk('desk-settings.sent'),
        ]}
      >
        {MAILS.map((kind) => {
          const own = mails[kind.template];
          return (
            <tr key={kind.template} className="border-t border-line align-top">
              <td className="py-2 pr-5 whitespace-nowrap">
                <Link
                  href={`/desk/settings/mail/${kind.template}`}
                  className="font-semibold text-spruce underline"
                >
                  {mailName(kind.template)}
                </Link>
              </td>
              <td className="py-2 pr-5">{desk(`desk-mails.${kind.template}-when`)}</td>
              <td className="py-2 pr-5 text-muted">
                {own?.subject && own.words
                  ? desk('desk-settings.own-subject-and-words')
                  : own?.subject
                    ? desk('desk-settings.own-subject')
                    : own?.words
                      ? desk('desk-settings.own-words')
                      : '–'}
              </td>
              <td className="py-2 whitespace-nowrap">
                {!kind.isAlwaysSent ? (
                  own?.isOn === false ? (
                    <b className="text-closed">{desk('desk-settings.off')}</b>
                  ) : (
                    desk('desk-settings.on')
                  )
                ) : (
                  desk('desk-settings.always')
                )}
              </td>
            </tr>
          );
        })}
      </Table>
    </>
  );
}
