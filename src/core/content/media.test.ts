import { describe, expect, it } from 'vitest';
import { bestDecision } from '../access/best';
import type { Decision } from '../access/decide';
import { fileSlug, freePath, itemPath, itemState } from './item';
import { byteRange, isShownInBrowser, mediaTypeOf, sizeIn } from './media';

describe('what a file is', () => {
  it('is told by its bytes, and its name must say the same', () => {
    expect(mediaTypeOf('Winter Atlas.PDF', 'pdf', null)).toBe('application/pdf');
    expect(mediaTypeOf('song.m4a', 'mp4', null)).toBe('audio/mp4');
    expect(mediaTypeOf('photo.jpeg', 'jpg', null)).toBe('image/jpeg');
    expect(mediaTypeOf('atlas.pdf', 'zip', null)).toBeNull();
    expect(mediaTypeOf('atlas.pdf', undefined, 'plain words')).toBeNull();
    expect(mediaTypeOf('atlas.exe', 'exe', null)).toBeNull();
    expect(mediaTypeOf('no ending', 'pdf', null)).toBeNull();
  });

  it('is text only where it is text, and no markup that a browser would run', () => {
    expect(mediaTypeOf('log.csv', undefined, 'night,seeing\n1,good')).toBe('text/csv; charset=utf-8');
    expect(mediaTypeOf('log.txt', undefined, null)).toBeNull();
    expect(mediaTypeOf('log.txt', 'png', 'PNG')).toBeNull();
    for (const markup of [
      '<!DOCTYPE html>',
      '  <html>',
      '<svg onload=x>',
      '<script>',
      '<?xml version="1.0"?>',
    ])
      expect(mediaTypeOf('log.txt', undefined, markup)).toBeNull();
  });

  it('is shown by a browser only where that can do no harm', () => {
    expect(['application/pdf', 'audio/mpeg', 'image/png', 'video/mp4'].every(isShownInBrowser)).toBe(true);
    expect(
      ['text/plain; charset=utf-8', 'application/zip', 'image/tiff', 'application/json'].some(
        isShownInBrowser,
      ),
    ).toBe(false);
  });

  it('has a size that people can read', () => {
    expect([900, 1400, 1_440_000, 2_345_000_000].map(sizeIn)).toEqual([
      { amount: 900, unit: 'byte' },
      { amount: 1, unit: 'kilobyte' },
      { amount: 1.4, unit: 'megabyte' },
      { amount: 2.35, unit: 'gigabyte' },
    ]);
  });
});

describe('the part of a file that is asked for', () => {
  it('is one range, from the beginning, from a place, or the end', () => {
    expect(byteRange('bytes=0-99', 1000)).toEqual({ first: 0, last: 99 });
    expect(byteRange('bytes=900-', 1000)).toEqual({ first: 900, last: 999 });
    expect(byteRange('bytes=-100', 1000)).toEqual({ first: 900, last: 999 });
    expect(byteRange('bytes=-5000', 1000)).toEqual({ first: 0, last: 999 });
    expect(byteRange('bytes=990-5000', 1000)).toEqual({ first: 990, last: 999 });
  });

  it('is all of it where the header asks for nothing that is meant so', () => {
    for (const header of [null, '', 'bytes=-', 'bytes=0-1,5-6', 'bytes=9-3', 'lines=1-2', 'bytes=a-b'])
      expect(byteRange(header, 1000)).toBeUndefined();
  });

  it('is nothing beyond its end', () => {
    expect(byteRange('bytes=1000-', 1000)).toBeNull();
    expect(byteRange('bytes=-0', 1000)).toBeNull();
    expect(byteRange('bytes=0-', 0)).toBeNull();
  });
});

describe('an item', () => {
  it('is a draft, scheduled, published, unpublished or in the trash', () => {
    const [before, now, after] = [
      '2027-01-01T00:00:00Z',
      '2027-01-02T00:00:00Z',
      '2027-01-03T00:00:00Z',
    ] as const;
    const of = (
      publishedAt: typeof now | null,
      wasPublishedAt: typeof now | null,
      trashedAt: typeof now | null,
    ) => itemState({ publishedAt, wasPublishedAt, trashedAt }, now);
    expect(of(null, null, null)).toBe('draft');
    expect(of(after as never, null, null)).toBe('scheduled');
    expect(of(now, null, null)).toBe('published');
    expect(of(before as never, null, null)).toBe('published');
    expect(of(null, before as never, null)).toBe('unpublished');
    expect(of(null, before as never, now)).toBe('trashed');
  });

  it('has its address below its parent or its kind; a file keeps its ending', () => {
    expect(itemPath('page', '', 'Visit us')).toBe('/visit-us');
    expect(itemPath('page', '/', 'Visit us')).toBe('/visit-us');
    expect(itemPath('page', '/library', 'Charts')).toBe('/library/charts');
    expect(itemPath('file', '/files', 'Winter Atlas.PDF')).toBe('/files/winter-atlas.pdf');
    expect(fileSlug('no ending')).toBe('no-ending');
  });

  it('gets a number where its address is taken, before its ending', () => {
    const taken = new Set(['/visit', '/visit-2', '/files/atlas.pdf']);
    expect(freePath('/about', (path) => taken.has(path))).toBe('/about');
    expect(freePath('/visit', (path) => taken.has(path))).toBe('/visit-3');
    expect(freePath('/files/atlas.pdf', (path) => taken.has(path))).toBe('/files/atlas-2.pdf');
  });
});

describe('the most open of several decisions', () => {
  const of = (state: Decision['state'], opensAt?: string): Decision =>
    ({ state, by: 'rule', rules: [], ...(opensAt && { opensAt }) }) as Decision;
  it('is open before metered, later, ended and closed; of two that open later, the sooner', () => {
    expect(bestDecision([of('closed'), of('metered'), of('later')])?.state).toBe('metered');
    expect(bestDecision([of('closed'), of('ended')])?.state).toBe('ended');
    const late = of('later', '2027-03-01T00:00:00Z');
    const soon = of('later', '2027-02-01T00:00:00Z');
    expect(bestDecision([late, soon, of('closed')])).toBe(soon);
    expect(bestDecision([])).toBeUndefined();
  });
});
