import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { contrast, DEFAULT_THEME, readableOn, sampleStyle, themeColours, themeStyle } from './theme';
import { themeSchema } from './theme-schema';

describe('contrast', () => {
  it('is that of the standard, whichever colour comes first', () => {
    expect(contrast('#000000', '#ffffff')).toBe(21);
    expect(contrast('#ffffff', '#000000')).toBe(21);
    expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
  });
});

describe('the colours of a theme', () => {
  it('are left as they were chosen where they can be read', () => {
    expect(readableOn('#1f5a4c', '#f6f3ec')).toBe('#1f5a4c');
    expect(themeColours(DEFAULT_THEME).night).toBe('#1c2a2e');
  });

  it('can be read by day and by night, whatever was chosen', () => {
    const colour = fc
      .tuple(fc.nat(255), fc.nat(255), fc.nat(255))
      .map((rgb) => `#${rgb.map((value) => value.toString(16).padStart(2, '0')).join('')}`);
    fc.assert(
      fc.property(colour, colour, (accent, night) => {
        const shown = themeColours({ ...DEFAULT_THEME, accent, night });
        expect(contrast(shown.light.accent, '#f6f3ec')).toBeGreaterThanOrEqual(4.5);
        expect(contrast(shown.dark.accent, '#10181a')).toBeGreaterThanOrEqual(4.5);
        for (const { accent: on, onAccent } of [shown.light, shown.dark])
          expect(contrast(on, onAccent)).toBeGreaterThanOrEqual(4.5);
        expect(contrast(shown.night, '#f1ebdd')).toBeGreaterThanOrEqual(7);
      }),
    );
  });

  it('say nothing where nothing was changed, and what was where it was', () => {
    expect(themeStyle(DEFAULT_THEME)).toEqual({});
    expect(themeStyle({ ...DEFAULT_THEME, accent: '#aa0000', heading: 'fraunces', scheme: 'dark' })).toEqual({
      '--color-spruce': expect.stringMatching(/^light-dark\(#aa0000, #[0-9a-f]{6}\)$/) as string,
      '--font-display': expect.stringContaining('Fraunces') as string,
      '--color-spruce-deep': expect.any(String) as string,
      '--color-on-spruce': expect.any(String) as string,
    });
  });

  it('are shown by day and by night side by side', () => {
    expect(sampleStyle(DEFAULT_THEME, 'dark')).toMatchObject({
      colorScheme: 'dark',
      '--color-paper': '#10181a',
      '--color-spruce': '#7fc4b0',
    });
    expect(sampleStyle(DEFAULT_THEME, 'light')).toMatchObject({ '--color-spruce': '#1f5a4c' });
  });

  it('of the product are what the styles have', () => {
    const styles = readFileSync('src/app/globals.css', 'utf8');
    const { light, dark, night } = themeColours(DEFAULT_THEME);
    expect(styles).toContain(`--color-spruce: light-dark(${light.accent}, ${dark.accent});`);
    expect(styles).toContain(`--color-spruce-deep: light-dark(${light.deep}, ${dark.deep});`);
    expect(styles).toContain(`--color-on-spruce: light-dark(${light.onAccent}, ${dark.onAccent});`);
    expect(styles).toContain(`--color-night: light-dark(${night},`);
  });

  it('are colours and nothing else', () => {
    for (const accent of ['red', '#fff', '#12345g', 'url(x)', '#123456; color: red'])
      expect(themeSchema.safeParse({ accent }).success).toBe(false);
    expect(themeSchema.parse({})).toEqual(DEFAULT_THEME);
  });
});
