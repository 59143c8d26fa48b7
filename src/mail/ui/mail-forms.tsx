'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { mergeWords, paragraphs, type MergeFields } from '@/core/mail-words';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import type { MemberId } from '@/core/ids';

/** Who mail comes from. */
export function SenderForm({ action, name, address }: { action: FormAction; name: string; address: string }) {
  return (
    <ActionForm
      action={action}
      label="Sender"
      className="mt-5 grid max-w-4xl items-start gap-4 rounded-card border border-line bg-surface p-5 md:grid-cols-[1fr_1fr_auto]"
    >
      <TextField
        name="senderName"
        label="Mail comes from"
        defaultValue={name}
        hint="The name beside the subject."
      />
      <TextField
        name="senderAddress"
        label="Address"
        type="email"
        defaultValue={address}
        hint="Answers go there."
      />
      <div className="grid gap-2 md:mt-7">
        <SubmitButton busy="Saving…">Save the sender</SubmitButton>
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
      <ActionForm action={action} label="This mail" className="grid gap-5">
        <FormMessage />
        <input type="hidden" name="template" value={template} />
        {canBeOff ? (
          <CheckField name="isOn" value="yes" label="This mail is sent" defaultChecked={initial.isOn} />
        ) : (
          <p className="text-muted">
            This mail is always sent: something hangs on it.
            <input type="hidden" name="isOn" value="yes" />
          </p>
        )}
        <TextField
          name="subject"
          label="Subject"
          value={subject}
          onChange={(event) => setSubject(event.target.value)}
          placeholder={preview?.subject}
          hint="Left empty, it is the one you see."
        />
        <TextArea
          name="words"
          label="Your words"
          rows={8}
          value={words}
          onChange={(event) => setWords(event.target.value)}
          hint="They come first; the facts, with amounts and dates, follow by themselves."
        />
        <div>
          <p className="font-semibold">Put in</p>
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
        <SubmitButton busy="Saving…" className="w-fit px-8">
          Save this mail
        </SubmitButton>
      </ActionForm>
      <section aria-label="Preview">
        {preview && shown ? (
          <>
            <SelectField
              name="member"
              label="As it would reach"
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
                <p className="text-[0.9375rem] text-muted">Subject</p>
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
            <ActionForm action={tryAction} label="Try it" className="mt-4 grid gap-2">
              <input type="hidden" name="template" value={template} />
              <input type="hidden" name="member" value={preview.memberId} />
              <SubmitButton busy="Sending…" look="quiet" className="w-fit">
                Send this to me, as it was saved
              </SubmitButton>
              <FormMessage />
            </ActionForm>
          </>
        ) : (
          <p className="text-muted">Nobody has joined yet, so there is nobody to show it for.</p>
        )}
      </section>
    </div>
  );
}
