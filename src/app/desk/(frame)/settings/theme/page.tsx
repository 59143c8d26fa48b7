import type { Metadata } from 'next';
import { currentActor, deskWords, requireStaff, shown } from '@/app/session';
import { themeSettings } from '@/desk/services/theme-settings';
import { ThemeForm } from '@/desk/ui/theme-form';
import { saveThemeAction } from '../actions';
import { desk } from '@/words/desk';
import { problem } from '@/words/problems';

export const metadata: Metadata = { title: desk('desk-settings.theme-settings') };

export default async function ThemePage() {
  await requireStaff('change settings');
  const settings = await shown(themeSettings(await currentActor()));
  const t = await deskWords();
  return (
    <>
      <ThemeForm {...settings} action={saveThemeAction} tooLarge={t.problem(problem('picture.too-large'))} />
    </>
  );
}
