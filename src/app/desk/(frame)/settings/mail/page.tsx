import type { Metadata } from 'next';
import Link from 'next/link';
import { currentActor, requireStaff, shown } from '@/app/session';
import { MAILS } from '@/mail/catalogue';
import { mailSettings } from '@/desk/services/site-settings';
import { MailTabs } from '@/mail/ui/mail-tabs';
import { SenderForm } from '@/mail/ui/mail-forms';
import { SettingsHead } from '@/desk/ui/settings-head';
import { Table } from '@/kit/table';
import { saveSenderAction } from '../actions';

export const metadata: Metadata = { title: 'Mail · Settings' };

export default async function MailPage() {
  await requireStaff('set up the site');
  const { senderName, senderAddress, mails } = await shown(mailSettings(await currentActor()));
  return (
    <>
      <SettingsHead here="mail" />
      <MailTabs here="mails" />
      <SenderForm action={saveSenderAction} name={senderName} address={senderAddress} />
      <Table heads={['Mail', 'When it is sent', 'Your words', 'Sent']}>
        {MAILS.map((kind) => {
          const own = mails[kind.template];
          return (
            <tr key={kind.template} className="border-t border-line align-top">
              <td className="py-2 pr-5 whitespace-nowrap">
                <Link
                  href={`/desk/settings/mail/${kind.template}`}
                  className="font-semibold text-spruce underline"
                >
                  {kind.name}
                </Link>
              </td>
              <td className="py-2 pr-5">{kind.when}</td>
              <td className="py-2 pr-5 text-muted">
                {[own?.subject && 'subject', own?.words && 'words'].filter(Boolean).join(' and ') || '–'}
              </td>
              <td className="py-2 whitespace-nowrap">
                {!kind.isAlwaysSent ? (
                  own?.isOn === false ? (
                    <b className="text-closed">off</b>
                  ) : (
                    'on'
                  )
                ) : (
                  'always'
                )}
              </td>
            </tr>
          );
        })}
      </Table>
    </>
  );
}
