'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { mergeWords, paragraphs, type MergeFields } from '@/core/mail-words';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import type { MemberId } from '@/core/ids';
import { desk } from '@/words/desk';

/** Who mail comes from. */
export function SenderForm({ action, name, address }: { action: FormAction; name: string; address: string }) {
  return (
    <ActionForm
      action={action}
      label={desk('desk-settings.sender')}
      className="mt-5 grid max-w-4xl items-start gap-4 rounded-card border border-line bg-surface p-5 md:grid-cols-[1fr_1fr_auto]"
    >
      <TextField
        name="senderName"
        label={desk('desk-settings.mail-comes-from')}
        defaultValue={name}
        hint={desk('desk-settings.the-name-beside-the-subject')}
      />
      <TextField
        name="senderAddress"
        label={desk('desk.address')}
        type="email"
        defaultValue={address}
        hint={desk('desk-settings.answers-go-there')}
      />
      <div className="grid gap-2 md:mt-7">
        <SubmitButton busy={desk('desk.saving')}>{desk('desk-settings.save-the-sender')}</SubmitButton>
        <FormMessage />
      </div>
    </ActionForm>
  );
}

type Props = {
  action: FormAction;
  tryAction: FormAction;
  template: string;
  canBeOff: boolean;
  initial: { isOn: boolean; subject: string; words: string };
  fields: string[];
  preview: {
    memberId: MemberId;
    hello: string;
    subject: string;
    lines: string[];
    link: string;
    values: MergeFields;
  } | null;
  members: { id: string; name: string }[];
  siteName: string;
};

/** The owner's words for a mail, and beside them the mail as a real member would get it, with what is typed. */
export function MailForm(props: Props) {
  const { action, tryAction, template, canBeOff, initial, fields, preview, members, siteName } = props;
  const router = useRouter();
  const [subject, setSubject] = useState(initial.subject);
  const [words, setWords] = useState(initial.words);
  const shown = preview && {
    subject: subject.trim() ? mergeWords(subject.trim(), preview.values) : preview.subject,
    own: paragraphs(words).map((line) => mergeWords(line, preview.values)),
  };
  return (
    <div className="mt-5 grid items-start gap-8 lg:grid-cols-2">
      <ActionForm action={action} label={desk('desk-settings.this-mail')} className="grid gap-5">
        <FormMessage />
        <input type="hidden" name="template" value={template} />
        {canBeOff ? (
          <CheckField
            name="isOn"
            value="yes"
            label={desk('desk-settings.this-mail-is-sent')}
            defaultChecked={initial.isOn}
          />
        ) : (
          <p className="text-muted">
            {desk('desk-settings.this-mail-is-always-sent')}
            <input type="hidden" name="isOn" value="yes" />
          </p>
        )}
        <TextField
          name="subject"
          label={desk('desk-settings.subject')}
          value={subject}
          onChange={(event) => setSubject(event.target.value)}
          placeholder={preview?.subject}
          hint={desk('desk-settings.left-empty-it-is-the')}
        />
        <TextArea
          name="words"
          label={desk('desk-settings.your-words')}
          rows={8}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          hint={desk('desk-settings.they-come-first-the-facts')}
        />
        <div>
          <p className="font-semibold">{desk('desk-settings.put-in')}</p>
          <p className="mt-1 flex flex-wrap gap-2">
            {fields.map((field) => (
              <Button
                key={field}
                look="quiet"
                className="min-h-8 font-mono text-sm"
                onClick={() => setWords((old) => `${old}${old && !old.endsWith(' ') ? ' ' : ''}{${field}}`)}
              >
                {`{${field}}`}
              </Button>
            ))}
          </p>
        </div>
        <SubmitButton busy={desk('desk.saving')} className="w-fit px-8">
          {desk('desk-settings.save-this-mail')}
        </SubmitButton>
      </ActionForm>
      <section aria-label={desk('desk-settings.preview')}>
        {preview && shown ? (
          <>
            <SelectField
              name="member"
              label={desk('desk-settings.as-it-would-reach')}
              value={preview.memberId}
              onChange={(event) =>
                router.replace(`/desk/settings/mail/${template}?member=${event.target.value}`, {
                  scroll: false,
                })
              }
            >
              {members.map((member) => (
                <option key={member.id} value={member.id}>
                  {member.name}
                </option>
              ))}
            </SelectField>
            <article className="mt-4 rounded-card border border-line bg-surface">
              <header className="border-b border-line px-6 py-3">
                <p className="text-[0.9375rem] text-muted">{desk('desk-settings.subject')}</p>
                <p className="font-semibold">{shown.subject}</p>
              </header>
              <div className="grid gap-3 px-6 py-5">
                <p>{preview.hello}</p>
                {shown.own.map((line, index) => (
                  <p key={index} className="border-l-2 border-brass pl-3">
                    {line}
                  </p>
                ))}
                {preview.lines.map((line) => (
                  <p key={line}>{line}</p>
                ))}
                <p className="text-spruce underline">{preview.link}</p>
                <p className="text-muted">{siteName}</p>
              </div>
            </article>
            <ActionForm action={tryAction} label={desk('desk-settings.try-it')} className="mt-4 grid gap-2">
              <input type="hidden" name="template" value={template} />
              <input type="hidden" name="member" value={preview.memberId} />
              <SubmitButton busy={desk('desk-settings.sending')} look="quiet" className="w-fit">
                {desk('desk-settings.send-this-to-me-as')}
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          </>
        ) : (
          <p className="text-muted">{desk('desk-settings.nobody-has-joined-yet-so')}</p>
        )}
      </section>
    </div>
  );
}
