import type { Metadata } from 'next';
import Link from 'next/link';
import { notFound } from 'next/navigation';
import { z } from 'zod';
import { requireStaff } from '@/app/session';
import { fieldsOf, mailKind } from '@/mail/catalogue';
import { mailPreview, previewMembers } from '@/services/mail-preview';
import { currentSite } from '@/services/site';
import { MailForm } from '@/ui/desk/mail-forms';
import { SettingsHead } from '@/ui/desk/settings-head';
import { saveMailAction, tryMailAction } from '../../actions';

type Props = { params: Promise<{ template: string }>; searchParams: Promise<{ member?: string }> };

export const metadata: Metadata = { title: 'A mail' };

export default async function MailEditPage({ params, searchParams }: Props) {
  await requireStaff('set up the site');
  const [{ template }, { member }] = [await params, await searchParams];
  const kind = mailKind(template);
  if (!kind) notFound();
  const site = await currentSite();
  const chosen = z.uuid().safeParse(member).success ? (member ?? null) : null;
  const preview = await mailPreview(kind.template, chosen);
  const own = site.mails[kind.template];
  const members = (await previewMembers()).map(({ id, name, email }) => ({ id, name: name || email }));
  return (
    <>
      <SettingsHead here="mail" />
      <p className="mt-4">
        <Link href="/desk/settings/mail" className="text-spruce underline">
          Mails
        </Link>
      </p>
      <h2 className="mt-1 text-2xl">{kind.name}</h2>
      <p className="text-muted">{kind.when}</p>
      <MailForm
        key={kind.template}
        action={saveMailAction}
        tryAction={tryMailAction}
        template={kind.template}
        canBeOff={kind.canBeOff}
        initial={own ?? { isOn: true, subject: '', words: '' }}
        fields={fieldsOf(kind)}
        siteName={site.name}
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
