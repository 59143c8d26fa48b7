'use client';

import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';
import type { TeaserSetting } from '@/core/content/teaser';
import { desk } from '@/words/desk';

type Teaser = TeaserSetting;
export type DoorstepDraft = {
  teaser: Teaser;
  visitorNotice: string;
  memberNotice: string;
  showSignIn: boolean;
};

type Props = {
  doorstep: DoorstepDraft | null;
  siteDoorstep: DoorstepDraft;
  onChange: (doorstep: DoorstepDraft | null) => void;
};

/** The doorstep of a rule, where it is not the site's own. */
export function DoorstepFields({ doorstep, siteDoorstep, onChange }: Props) {
  const shown = doorstep ?? siteDoorstep;
  const change = (part: Partial<DoorstepDraft>): void => onChange({ ...shown, ...part });
  const teaserOf = (kind: string): Teaser =>
    kind === 'words'
      ? { kind, count: 60 }
      : kind === 'summary' || kind === 'marker'
        ? { kind }
        : { kind: 'none' };
  return (
    <div className="grid gap-5">
      <CheckField
        name="ownDoorstep"
        label={desk('desk-access.a-doorstep-of-its-own')}
        checked={doorstep !== null}
        onChange={(event) => onChange(event.target.checked ? siteDoorstep : null)}
        hint={desk('desk-access.otherwise-the-sites-doorstep-is-used')}
      />
      {doorstep && (
        <div className="grid gap-5 lg:grid-cols-2">
          <div className="flex items-start gap-3">
            <SelectField
              name="doorstep.teaser.kind"
              label={desk('desk-access.teaser')}
              value={shown.teaser.kind}
              onChange={(event) => change({ teaser: teaserOf(event.target.value) })}
              className="flex-1"
            >
              <option value="words">{desk('desk-access.the-summary-and-the-first-words')}</option>
              <option value="marker">{desk('desk-access.up-to-the-marker')}</option>
              <option value="summary">{desk('desk-access.the-summary')}</option>
              <option value="none">{desk('desk-access.nothing-but-the-title')}</option>
            </SelectField>
            {shown.teaser.kind === 'words' && (
              <TextField
                name="doorstep.teaser.count"
                label={desk('desk-access.words')}
                inputMode="numeric"
                className="w-24"
                value={Number.isNaN(shown.teaser.count) ? '' : String(shown.teaser.count)}
                onChange={(event) =>
                  change({ teaser: { kind: 'words', count: Number.parseInt(event.target.value, 10) } })
                }
              />
            )}
          </div>
          <div className="self-end">
            <CheckField
              name="doorstep.showSignIn"
              label={desk('desk-access.sign-in-in-place')}
              checked={shown.showSignIn}
              onChange={(event) => change({ showSignIn: event.target.checked })}
            />
          </div>
          <TextArea
            name="doorstep.visitorNotice"
            label={desk('desk-access.notice-for-visitors')}
            rows={2}
            value={shown.visitorNotice}
            onChange={(event) => change({ visitorNotice: event.target.value })}
          />
          <TextArea
            name="doorstep.memberNotice"
            label={desk('desk-access.notice-for-members-without-the')}
            rows={2}
            value={shown.memberNotice}
            onChange={(event) => change({ memberNotice: event.target.value })}
          />
        </div>
      )}
    </div>
  );
}
