import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { themeSettings } from '@/desk/services/theme-settings';
import { SettingsHead } from '@/desk/ui/settings-head';
import { ThemeForm } from '@/desk/ui/theme-form';
import { saveThemeAction } from '../actions';
import { desk } from '@/words/desk';
import { problem } from '@/words/problems';

export const metadata: Metadata = { title: desk('desk-settings.theme-settings') };

export default async function ThemePage() {
  const staff = await requireStaff('change settings');
  const settings = await shown(themeSettings(await currentActor()));
  const t = await deskWords();
  return (
    <>
      <SettingsHead here="theme" may={staff.may} />
      <ThemeForm {...settings} action={saveThemeAction} tooLarge={t.problem(problem('picture.too-large'))} />
    </>
  );
}
