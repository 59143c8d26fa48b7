/** How the site looks, where the owner has a say. Colours as "#rrggbb". */
export const FONTS = ['bricolage', 'source-sans', 'fraunces', 'source-serif'] as const;
export type Font = (typeof FONTS)[number];
export const SCHEMES = ['both', 'light', 'dark'] as const;
export type Scheme = (typeof SCHEMES)[number];
export type Theme = { accent: string; night: string; heading: Font; text: Font; scheme: Scheme };

export const DEFAULT_THEME: Theme = {
  accent: '#1f5a4c',
  night: '#1c2a2e',
  heading: 'bricolage',
  text: 'source-sans',
  scheme: 'both',
};

/** The page itself by day and by night, as the styles of the product have it. */
const PAGE = {
  light: { paper: '#f6f3ec', ink: '#1d2b2f' },
  dark: { paper: '#10181a', ink: '#ece6d8' },
};

/** The words on the night band. */
const ON_NIGHT = '#f1ebdd';
/** WCAG 2.2, success criteria 1.4.3 (AA) for words and 1.4.6 (AAA) for the band, which holds small ones. */
export const LEAST = 4.5;
const LEAST_ON_NIGHT = 7;

const channels = (hex: string): [number, number, number] => [
  Number.parseInt(hex.slice(1, 3), 16),
  Number.parseInt(hex.slice(3, 5), 16),
  Number.parseInt(hex.slice(5, 7), 16),
];
const hexOf = (rgb: readonly number[]): string =>
  `#${rgb.map((value) => Math.round(value).toString(16).padStart(2, '0')).join('')}`;

/** Relative luminance of a colour, 0 to 1: WCAG 2.2, "relative luminance". */
function luminance(hex: string): number {
  const [red, green, blue] = channels(hex).map((value) => {
    const share = value / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** The contrast of two colours, 1 to 21: WCAG 2.2, "contrast ratio". */
export function contrast(one: string, other: string): number {
  const [a, b] = [luminance(one), luminance(other)];
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** A colour with a share of another in it. */
const mixed = (hex: string, other: string, share: number): string => {
  const [a, b] = [channels(hex), channels(other)];
  return hexOf(a.map((value, index) => value + ((b[index] ?? 0) - value) * share));
};

/** The colour nearest to one that can be read on a background: lighter on dark, darker on light. */
export function readableOn(hex: string, background: string, least = LEAST): string {
  const towards = luminance(background) > 0.18 ? '#000000' : '#ffffff';
  for (let share = 0; share < 1; share += 0.02) {
    const tried = mixed(hex, towards, share);
    if (contrast(tried, background) >= least) return tried;
  }
  return towards;
}

export type Accent = { accent: string; deep: string; onAccent: string };

function accentOn(hex: string, background: string): Accent {
  const accent = readableOn(hex, background);
  const onAccent = contrast('#fffdf8', accent) >= contrast('#10181a', accent) ? '#fffdf8' : '#10181a';
  return { accent, deep: mixed(accent, luminance(background) > 0.18 ? '#000000' : '#ffffff', 0.2), onAccent };
}

/** The accent of the product itself, as its styles have it. */
const OWN_ACCENT: { light: Accent; dark: Accent } = {
  light: { accent: '#1f5a4c', deep: '#17463b', onAccent: '#fffdf8' },
  dark: { accent: '#7fc4b0', deep: '#9ad6c4', onAccent: '#0f1a17' },
};

/** The colours of a theme as they are shown: none that could not be read. */
export function themeColours({ accent, night }: Theme): { light: Accent; dark: Accent; night: string } {
  const isOwn = accent === DEFAULT_THEME.accent;
  return {
    light: isOwn ? OWN_ACCENT.light : accentOn(accent, PAGE.light.paper),
    dark: isOwn ? OWN_ACCENT.dark : accentOn(accent, PAGE.dark.paper),
    night: readableOnNight(night),
  };
}

/** The night band, as dark as its words need it. */
function readableOnNight(hex: string): string {
  for (let share = 0; share < 1; share += 0.02) {
    const tried = mixed(hex, '#000000', share);
    if (contrast(ON_NIGHT, tried) >= LEAST_ON_NIGHT) return tried;
  }
  return '#000000';
}

const FAMILIES: Record<Font, string> = {
  bricolage: "'Bricolage Grotesque Variable', ui-sans-serif, sans-serif",
  'source-sans': "'Source Sans 3 Variable', ui-sans-serif, sans-serif",
  fraunces: "'Fraunces Variable', ui-serif, serif",
  'source-serif': "'Source Serif 4 Variable', ui-serif, serif",
};

/** A theme as a piece of a page shows it, by day or by night, whatever the page around it is. */
export function sampleStyle(theme: Theme, scheme: 'light' | 'dark'): Record<string, string> {
  const colours = themeColours(theme);
  return {
    ...themeStyle(theme),
    colorScheme: scheme,
    '--color-paper': PAGE[scheme].paper,
    '--color-ink': PAGE[scheme].ink,
    '--color-spruce': colours[scheme].accent,
    '--color-on-spruce': colours[scheme].onAccent,
    '--color-night': colours.night,
  };
}

/** A theme as the custom properties that the styles of the site name; nothing where it is as the product comes. */
export function themeStyle(theme: Theme): Record<string, string> {
  const { light, dark, night } = themeColours(theme);
  const pair = (one: string, other: string): string => `light-dark(${one}, ${other})`;
  const style: Record<string, string> = {};
  if (theme.accent !== DEFAULT_THEME.accent) {
    style['--color-spruce'] = pair(light.accent, dark.accent);
    style['--color-spruce-deep'] = pair(light.deep, dark.deep);
    style['--color-on-spruce'] = pair(light.onAccent, dark.onAccent);
  }
  if (theme.night !== DEFAULT_THEME.night) {
    style['--color-night'] = night;
    style['--color-night-soft'] = mixed(night, '#ffffff', 0.1);
  }
  if (theme.heading !== DEFAULT_THEME.heading) style['--font-display'] = FAMILIES[theme.heading];
  if (theme.text !== DEFAULT_THEME.text) style['--font-sans'] = FAMILIES[theme.text];
  return style;
}
