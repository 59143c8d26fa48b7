'use client';

import { useState } from 'react';
import { DEFAULT_THEME, FONTS, SCHEMES, sampleStyle, themeColours, type Theme } from '@/core/theme';
import { PictureField } from '@/content/ui/picture-field';
import { ActionForm, Draft, FormMessage, SubmitButton, type FormAction } from '@/kit/action-form';
import { Button } from '@/kit/button';
import { SelectField } from '@/kit/field';
import { desk } from '@/words/desk';

type Props = { theme: Theme; markId: string | null; name: string; action: FormAction; tooLarge: string };

/** How the site looks, with a page of it beside the fields, by day and by night. */
export function ThemeForm({ theme: saved, markId, name, action, tooLarge }: Props) {
  const [theme, setTheme] = useState(saved);
  const change = (part: Partial<Theme>): void => setTheme((old) => ({ ...old, ...part }));
  const shown = themeColours(theme);
  const adjusted = [
    shown.light.accent !== theme.accent && theme.scheme !== 'dark'
      ? desk('desk-settings.shown-by-day', { colour: shown.light.accent })
      : '',
    shown.dark.accent !== theme.accent && theme.scheme !== 'light'
      ? desk('desk-settings.shown-by-night', { colour: shown.dark.accent })
      : '',
  ].filter(Boolean);
  return (
    <ActionForm
      action={action}
      label={desk('desk-settings.theme')}
      className="mt-5 grid items-start gap-x-10 gap-y-6 lg:grid-cols-[24rem_minmax(0,1fr)]"
    >
      <Draft name="theme" value={theme} />
      <div className="grid gap-5">
        <FormMessage />
        <PictureField
          name="mark"
          label={desk('desk-settings.mark')}
          pictureId={markId}
          tooLarge={tooLarge}
          upload="/desk/uploads/content-picture"
        />
        <Colour
          label={desk('desk-settings.accent')}
          value={theme.accent}
          hint={[desk('desk-settings.accent-hint'), ...adjusted].join(' ')}
          onChange={(accent) => change({ accent })}
        />
        <Colour
          label={desk('desk-settings.night-colour')}
          value={theme.night}
          hint={
            shown.night === theme.night
              ? desk('desk-settings.night-hint')
              : desk('desk-settings.night-shown', { colour: shown.night })
          }
          onChange={(night) => change({ night })}
        />
        {(['heading', 'text'] as const).map((part) => (
          <SelectField
            key={part}
            name={`theme.${part}`}
            label={desk(`desk-settings.font-${part}`)}
            value={theme[part]}
            onChange={(event) => {
              const font = FONTS.find((one) => one === event.target.value);
              if (font) change({ [part]: font });
            }}
          >
            {FONTS.map((font) => (
              <option key={font} value={font}>
                {desk(`desk-settings.font-${font}`)}
              </option>
            ))}
          </SelectField>
        ))}
        <SelectField
          name="theme.scheme"
          label={desk('desk-settings.scheme')}
          value={theme.scheme}
          onChange={(event) => {
            const scheme = SCHEMES.find((one) => one === event.target.value);
            if (scheme) change({ scheme });
          }}
        >
          {SCHEMES.map((scheme) => (
            <option key={scheme} value={scheme}>
              {desk(`desk-settings.scheme-${scheme}`)}
            </option>
          ))}
        </SelectField>
        <div className="flex flex-wrap gap-3">
          <SubmitButton busy={desk('desk.saving')} className="px-8">
            {desk('desk.save')}
          </SubmitButton>
          <Button look="quiet" onClick={() => setTheme(DEFAULT_THEME)}>
            {desk('desk-settings.theme-default')}
          </Button>
        </div>
      </div>
      <div className="grid gap-5 xl:grid-cols-2">
        {(['light', 'dark'] as const)
          .filter((scheme) => theme.scheme === 'both' || theme.scheme === scheme)
          .map((scheme) => (
            <Preview key={scheme} name={name} theme={theme} scheme={scheme} />
          ))}
      </div>
    </ActionForm>
  );
}

function Colour({
  label,
  value,
  hint,
  onChange,
}: {
  label: string;
  value: string;
  hint: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="grid gap-1">
      <span className="font-semibold">{label}</span>
      <span className="flex items-center gap-3">
        <input
          type="color"
          value={value}
          onChange={(event) => onChange(event.target.value)}
          className="h-10 w-16 rounded-md border border-edge/70 bg-surface p-1"
        />
        <span className="font-mono">{value}</span>
      </span>
      <span className="text-[0.9375rem] text-muted">{hint}</span>
    </label>
  );
}

/** A piece of a page as the theme makes it. */
function Preview({ name, theme, scheme }: { name: string; theme: Theme; scheme: 'light' | 'dark' }) {
  return (
    <div
      inert
      style={sampleStyle(theme, scheme)}
      className="overflow-hidden rounded-card border border-line bg-paper font-sans text-ink"
    >
      <p className="px-5 pt-4 font-display text-lg font-bold">{name}</p>
      <div className="px-5 py-4">
        <p className="font-display text-2xl font-bold">{desk('desk-settings.sample-title')}</p>
        <p className="mt-2">
          {desk('desk-settings.sample-words')}{' '}
          <span className="text-spruce underline">{desk('desk-settings.sample-link')}</span>
        </p>
        <p className="mt-4 inline-block rounded-lg bg-spruce px-4 py-2 font-semibold text-on-spruce">
          {desk('desk-settings.sample-button')}
        </p>
      </div>
      <div className="bg-night px-5 py-4 text-on-night">
        <p className="font-display text-lg font-bold">{desk('desk-settings.sample-doorstep')}</p>
        <p className="text-on-night-soft">{desk('desk-settings.sample-notice')}</p>
      </div>
    </div>
  );
}
