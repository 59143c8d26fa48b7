'use client';

import clsx from 'clsx';
import { useRef, useState } from 'react';
import { ASKERS, type Asker } from '@/core/access/asker';
import {
  NOTICE_FIELDS,
  noticeParts,
  type Doorstep,
  type Meeting,
  type NoticeField,
  type NoticePart,
} from '@/core/access/doorstep';
import type { TeaserSetting } from '@/core/content/teaser';
import { Button } from '@/kit/button';
import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import { desk } from '@/words/desk';

export type NoticeSample = Record<NoticeField, NoticePart>;

type Props = { doorstep: Doorstep; sample: NoticeSample; onChange: (doorstep: Doorstep) => void };

const askerWords = (asker: Asker): string => desk(`desk-access.asker-${asker}`);

const teaserOf = (kind: string): TeaserSetting => {
  if (kind === 'words') return { kind, count: 60 };
  if (kind === 'paragraphs') return { kind, count: 2 };
  return kind === 'summary' || kind === 'marker' ? { kind } : { kind: 'none' };
};

/** What people see where they are not let in: how much of the text, and how each kind of person is met. */
export function DoorstepFields({ doorstep, sample, onChange }: Props) {
  const { teaser, meets, button } = doorstep;
  const [asker, setAsker] = useState<Asker>('visitor');
  const change = (part: Partial<Doorstep>): void => onChange({ ...doorstep, ...part });
  const meet = (meeting: Meeting): void => change({ meets: { ...meets, [asker]: meeting } });
  return (
    <div className="grid gap-6">
      <div className="flex max-w-xl items-start gap-3">
        <SelectField
          name="doorstep.teaser.kind"
          label={desk('desk-access.teaser')}
          value={teaser.kind}
          onChange={(event) => change({ teaser: teaserOf(event.target.value) })}
          className="flex-1"
        >
          <option value="words">{desk('desk-access.the-summary-and-the-first-words')}</option>
          <option value="paragraphs">{desk('desk-access.the-first-paragraphs')}</option>
          <option value="marker">{desk('desk-access.up-to-the-marker')}</option>
          <option value="summary">{desk('desk-access.the-summary')}</option>
          <option value="none">{desk('desk-access.nothing-but-the-title')}</option>
        </SelectField>
        {(teaser.kind === 'words' || teaser.kind === 'paragraphs') && (
          <TextField
            name="doorstep.teaser.count"
            label={desk('desk-access.how-many')}
            inputMode="numeric"
            className="w-24"
            value={Number.isNaN(teaser.count) ? '' : String(teaser.count)}
            onChange={(event) =>
              change({ teaser: { kind: teaser.kind, count: Number.parseInt(event.target.value, 10) } })
            }
          />
        )}
      </div>
      <div className="grid gap-4 lg:grid-cols-[15rem_1fr]">
        <div role="group" aria-label={desk('desk-access.who-is-met')} className="flex flex-col gap-1">
          {ASKERS.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === asker}
              onClick={() => setAsker(one)}
              className={clsx(
                'rounded-md px-3 py-2 text-left font-semibold',
                one === asker ? 'bg-sunken text-spruce' : 'text-muted hover:bg-sunken hover:text-ink',
              )}
            >
              {askerWords(one)}
            </button>
          ))}
        </div>
        <MeetingFields key={asker} asker={asker} meeting={meets[asker]} sample={sample} onChange={meet} />
      </div>
      <div className="grid gap-3">
        <CheckField
          name="doorstep.showSignIn"
          label={desk('desk-access.sign-in-in-place')}
          checked={doorstep.showSignIn}
          onChange={(event) => change({ showSignIn: event.target.checked })}
        />
        <CheckField
          name="doorstep.showTiers"
          label={desk('desk-access.tiers-in-place')}
          checked={doorstep.showTiers}
          onChange={(event) => change({ showTiers: event.target.checked })}
        />
        <CheckField
          name="doorstep.hasButton"
          label={desk('desk-access.own-button')}
          checked={button !== null}
          onChange={(event) => change({ button: event.target.checked ? { words: '', to: '/' } : null })}
        />
        {button && (
          <div className="ml-7 grid max-w-2xl gap-3 sm:grid-cols-2">
            <TextField
              name="doorstep.button.words"
              label={desk('desk-access.button-words')}
              value={button.words}
              onChange={(event) => change({ button: { ...button, words: event.target.value } })}
            />
            <TextField
              name="doorstep.button.to"
              label={desk('desk-access.button-to')}
              value={button.to}
              onChange={(event) => change({ button: { ...button, to: event.target.value } })}
              hint={desk('desk-access.button-to-hint')}
            />
          </div>
        )}
      </div>
    </div>
  );
}

type MeetingProps = {
  asker: Asker;
  meeting: Meeting;
  sample: NoticeSample;
  onChange: (meeting: Meeting) => void;
};

/** How one kind of person is met: by words, seen as they will be read, or by being led to another page. */
function MeetingFields({ asker, meeting, sample, onChange }: MeetingProps) {
  const field = useRef<HTMLDivElement>(null);
  const words = meeting.kind === 'notice' ? meeting.words : '';
  const putIn = (name: NoticeField): void => {
    const area = field.current?.querySelector('textarea');
    const [from, to] = [area?.selectionStart ?? words.length, area?.selectionEnd ?? words.length];
    onChange({ kind: 'notice', words: `${words.slice(0, from)}{${name}}${words.slice(to)}` });
    area?.focus();
  };
  return (
    <div className="grid content-start gap-3">
      <SelectField
        name={`doorstep.meets.${asker}.kind`}
        label={desk('desk-access.they-get')}
        value={meeting.kind}
        onChange={(event) =>
          onChange(
            event.target.value === 'redirect' ? { kind: 'redirect', to: '/join' } : { kind: 'notice', words },
          )
        }
        className="max-w-xs"
      >
        <option value="notice">{desk('desk-access.a-notice')}</option>
        <option value="redirect">{desk('desk-access.another-page')}</option>
      </SelectField>
      {meeting.kind === 'redirect' ? (
        <TextField
          name={`doorstep.meets.${asker}.to`}
          label={desk('desk-access.redirect-to')}
          value={meeting.to}
          onChange={(event) => onChange({ kind: 'redirect', to: event.target.value })}
          hint={desk('desk-access.redirect-hint')}
          className="max-w-md"
        />
      ) : (
        <>
          <div ref={field}>
            <TextArea
              name={`doorstep.meets.${asker}.words`}
              label={desk('desk-access.notice-for', { who: askerWords(asker) })}
              rows={3}
              maxLength={1000}
              value={words}
              onChange={(event) => onChange({ kind: 'notice', words: event.target.value })}
            />
            <p className="mt-2 flex flex-wrap items-center gap-2">
              <span className="text-[0.9375rem] text-muted">{desk('desk-settings.put-in')}</span>
              {NOTICE_FIELDS.map((name) => (
                <Button
                  key={name}
                  look="quiet"
                  className="min-h-8 py-0.5 font-mono text-sm"
                  onClick={() => putIn(name)}
                >
                  {`{${name}}`}
                </Button>
              ))}
            </p>
          </div>
          <div className="rounded-md bg-night px-4 py-3 text-on-night" style={{ colorScheme: 'dark' }}>
            <p className="text-sm font-semibold text-on-night-soft">{desk('desk-access.as-it-is-read')}</p>
            <p className="mt-1 whitespace-pre-line">
              {words === ''
                ? desk('desk-access.no-notice')
                : noticeParts(words, sample).map((part, n) =>
                    typeof part === 'string' ? (
                      <span key={n}>{part}</span>
                    ) : (
                      <span key={n} className="underline underline-offset-4">
                        {part.label}
                      </span>
                    ),
                  )}
            </p>
          </div>
        </>
      )}
    </div>
  );
}

type OwnProps = Omit<Props, 'doorstep' | 'onChange'> & {
  /** Which doorstep is used otherwise. */
  hint: string;
  doorstep: Doorstep | null;
  siteDoorstep: Doorstep;
  onChange: (doorstep: Doorstep | null) => void;
};

/** The doorstep of a rule or an item, where it is not the site's own. */
export function OwnDoorstepFields({ doorstep, siteDoorstep, sample, hint, onChange }: OwnProps) {
  return (
    <div className="grid gap-5">
      <CheckField
        name="ownDoorstep"
        label={desk('desk-access.a-doorstep-of-its-own')}
        checked={doorstep !== null}
        onChange={(event) => onChange(event.target.checked ? siteDoorstep : null)}
        hint={hint}
      />
      {doorstep && <DoorstepFields doorstep={doorstep} sample={sample} onChange={onChange} />}
    </div>
  );
}
