import { z } from 'zod';
import { DEFAULT_THEME, FONTS, SCHEMES } from './theme';

const colour = z.string().regex(/^#[0-9a-f]{6}$/);

export const themeSchema = z.object({
  accent: colour.default(DEFAULT_THEME.accent),
  night: colour.default(DEFAULT_THEME.night),
  heading: z.enum(FONTS).default(DEFAULT_THEME.heading),
  text: z.enum(FONTS).default(DEFAULT_THEME.text),
  scheme: z.enum(SCHEMES).default(DEFAULT_THEME.scheme),
});
