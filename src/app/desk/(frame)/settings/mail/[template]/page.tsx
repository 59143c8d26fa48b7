import type { Metadata } from 'next';
import { Link } from '@/kit/link';
import { searchOf, type Search } from '@/app/search';
import { currentActor, requireStaff, shown } from '@/app/session';
import { fieldsOf } from '@/mail/catalogue';
import { mailPreview } from '@/members/services/mail-preview';
import { MailForm } from '@/mail/ui/mail-forms';
import { saveMailAction, tryMailAction } from '../../actions';
import { mailName } from '../mail-name';
import { desk } from '@/words/desk';

type Props = { params: Promise<{ template: string }>; searchParams: Search };

export const metadata: Metadata = { title: desk('desk-settings.a-mail') };

export default async function MailEditPage({ params, searchParams }: Props) {
  await requireStaff('change settings');
  const [{ template }, { member }] = [await params, await searchOf(searchParams)];
  const mail = await shown(mailPreview(await currentActor(), { template, memberId: member ?? null }));
  const { kind, preview, own, siteName } = mail;
  const members = mail.members.map(({ id, name, email }) => ({ id, name: name || email }));
  return (
    <>
      <p className="mt-4">
        <Link href="/desk/settings/mail" className="text-spruce underline">
          {desk('desk-settings.mails')}
        </Link>
      </p>
      <h2 className="mt-1 text-2xl">{mailName(kind.template)}</h2>
      <p className="text-muted">{desk(`desk-mails.${kind.template}-when`)}</p>
      <MailForm
        key={kind.template}
        action={saveMailAction}
        tryAction={tryMailAction}
        template={kind.template}
        canBeOff={!kind.isAlwaysSent}
        initial={own ?? { isOn: true, subject: '', words: '' }}
        fields={fieldsOf(kind)}
        siteName={siteName}
        members={
          preview && !members.some((one) => one.id === preview.member.id)
            ? [{ id: preview.member.id, name: preview.member.name }, ...members]
            : members
        }
        preview={
          preview && {
            memberId: preview.member.id,
            hello: preview.hello,
            subject: preview.ours.subject,
            lines: preview.ours.lines,
            link: preview.ours.link.label,
            values: preview.fields,
          }
        }
      />
    </>
  );
}
