'use client';

import { Link } from '@/kit/link';
import type { Prose } from '@/core/content/prose';
import { LETTER_FIELDS } from '@/core/letters';
import { RichTextField } from '@/content/ui/rich-text-field';
import { ActionForm, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { CheckField, TextField } from '@/kit/field';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

type Reach = { listed: number; members: number };

/** How many are in a letter's list, and how many of them get it. */
export function LetterTo({ href, reach, isPost }: { href: string; reach: Reach; isPost: boolean }) {
  const isNobody = reach.members === 0 && !isPost;
  return (
    <p>
      <Sentence
        words={desk('desk-letters.to-list', { count: reach.listed })}
        parts={{
          link: (words) => (
            <Link href={href} className="text-spruce underline">
              {words}
            </Link>
          ),
        }}
      />
      {'. '}
      {desk(isPost ? 'desk-letters.to-wanting-posts' : 'desk-letters.to-wanting', { count: reach.members })}
      {isNobody && ` ${desk('desk-letters.how-to-want')}`}
    </p>
  );
}

type Props = {
  action: FormAction;
  letter: { id: string; version: number | null; subject: string; body: Prose; toAddresses: boolean };
  /** Of a new letter: the list it is written to, as the address of the list has it. */
  filter: Record<string, string>;
  /** The list of those it goes to. */
  href: string;
  reach: Reach;
};

/** Writes a letter, or changes a draft. */
export function LetterForm({ action, letter, filter, href, reach }: Props) {
  return (
    <ActionForm action={action} className="mt-5 grid max-w-2xl grid-cols-1 gap-5">
      <input type="hidden" name="id" value={letter.id} />
      {letter.version !== null && <input type="hidden" name="version" value={letter.version} />}
      {Object.entries(filter).map(([name, value]) => (
        <input key={name} type="hidden" name={`filter:${name}`} value={value} />
      ))}
      <div>
        <h2 className="font-semibold">{desk('desk-letters.to')}</h2>
        <LetterTo href={href} reach={reach} isPost={false} />
      </div>
      <CheckField
        name="toAddresses"
        label={desk('desk-letters.to-addresses')}
        defaultChecked={letter.toAddresses}
      />
      <TextField
        name="subject"
        label={desk('desk-letters.subject')}
        defaultValue={letter.subject}
        maxLength={150}
      />
      <RichTextField
        name="body"
        label={desk('desk-letters.text')}
        hint={desk('desk-letters.text-hint', {
          fields: LETTER_FIELDS.map((field) => `{${field}}`).join(', '),
        })}
        initial={letter.body}
      />
      <SubmitButton busy={desk('desk.saving')} className="w-fit">
        {desk('desk-letters.save')}
      </SubmitButton>
      <FormMessage />
    </ActionForm>
  );
}
