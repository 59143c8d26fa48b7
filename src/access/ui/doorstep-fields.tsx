'use client';

import { CheckField, SelectField, TextArea, TextField } from '@/kit/field';

type Teaser = { kind: 'none' } | { kind: 'summary' } | { kind: 'words'; count: number };
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

/** What stands at the doorstep of a rule, where it is not the site's own. */
export function DoorstepFields({ doorstep, siteDoorstep, onChange }: Props) {
  const shown = doorstep ?? siteDoorstep;
  const change = (part: Partial<DoorstepDraft>): void => onChange({ ...shown, ...part });
  const teaserOf = (kind: string): Teaser =>
    kind === 'words' ? { kind, count: 60 } : kind === 'summary' ? { kind } : { kind: 'none' };
  return (
    <div className="grid gap-5">
      <CheckField
        name="ownDoorstep"
        label="A doorstep of its own"
        checked={doorstep !== null}
        onChange={(event) => onChange(event.target.checked ? siteDoorstep : null)}
        hint="Otherwise the site’s doorstep is used."
      />
      {doorstep && (
        <div className="grid gap-5 lg:grid-cols-2">
          <div className="flex items-start gap-3">
            <SelectField
              name="doorstep.teaser.kind"
              label="Teaser"
              value={shown.teaser.kind}
              onChange={(event) => change({ teaser: teaserOf(event.target.value) })}
              className="flex-1"
            >
              <option value="words">The summary and the first words</option>
              <option value="summary">The summary</option>
              <option value="none">Nothing but the title</option>
            </SelectField>
            {shown.teaser.kind === 'words' && (
              <TextField
                name="doorstep.teaser.count"
                label="Words"
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
              label="Sign in in place"
              checked={shown.showSignIn}
              onChange={(event) => change({ showSignIn: event.target.checked })}
            />
          </div>
          <TextArea
            name="doorstep.visitorNotice"
            label="Notice for visitors"
            rows={2}
            value={shown.visitorNotice}
            onChange={(event) => change({ visitorNotice: event.target.value })}
          />
          <TextArea
            name="doorstep.memberNotice"
            label="Notice for members without the right tier"
            rows={2}
            value={shown.memberNotice}
            onChange={(event) => change({ memberNotice: event.target.value })}
          />
        </div>
      )}
    </div>
  );
}
