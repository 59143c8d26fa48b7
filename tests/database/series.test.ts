import { beforeAll, describe, expect, it } from 'vitest';
import { saveRule } from '../../src/access/services/save-rule';
import { accessWarnings } from '../../src/access/services/warnings';
import { viewItem } from '../../src/access/services/view-item';
import { previewRule } from '../../src/access/services/preview-rule';
import { arrangePages } from '../../src/content/services/arrange-pages';
import { saveItem } from '../../src/content/services/save-item';
import { trashItems } from '../../src/content/services/trash-items';
import { fromText } from '../../src/core/content/prose';
import { SETUP } from '../../src/platform/actor';
import { asMember } from '../../scripts/lib/people';
import { join, lanternMoor, passDays, rows, value } from './lantern-moor';

const moor = lanternMoor();
const lesson = async (id: string, publish: 'publish' | 'draft' = 'publish') =>
  value(
    await saveItem(SETUP, {
      id,
      type: 'page',
      parentId: 'course',
      title: id,
      summary: '',
      body: fromText(`The words of ${id}.`),
      publish,
    }),
  );
/** Puts a page before another; null: last. */
const put = (id: string, before: string | null) => arrangePages(SETUP, { id, parentId: 'course', before });
const places = async () =>
  Object.fromEntries(
    (
      await rows<{ id: string; place: number }>(
        "SELECT item_id AS id, place FROM page_places WHERE parent_id = 'course' AND until_at IS NULL",
      )
    ).map(({ id, place }) => [id, place]),
  );

let memberId: string;
const state = async (id: string): Promise<string> => {
  const seen = value(await viewItem(asMember(memberId), `/course/${id}`));
  return seen.kind === 'doorstep' ? seen.state : seen.kind;
};
const states = async (...ids: string[]): Promise<string[]> => {
  const all: string[] = [];
  for (const id of ids) all.push(await state(id));
  return all;
};

const rule = {
  id: 'course',
  name: 'The course',
  covers: [{ kind: 'under', id: 'course' }],
  openTo: [{ who: { kind: 'tier', id: 'observer' } }],
  each: { n: 1, unit: 'week' },
  firstAtOnce: true,
};

beforeAll(async () => {
  value(
    await saveItem(SETUP, {
      id: 'course',
      type: 'page',
      title: 'Course',
      summary: '',
      body: fromText('What we do.'),
      publish: 'publish',
    }),
  );
  for (const id of ['first', 'second', 'third']) await lesson(id);
  await lesson('unfinished', 'draft');
  ({ memberId } = await join(moor, 'observer-monthly', 'works'));
});

describe('a series of pages', () => {
  it('opens one page a week from joining; drafts are not counted', async () => {
    value(await saveRule(SETUP, rule));
    expect(await places()).toEqual({ first: 1, second: 2, third: 3 });
    expect(await states('first', 'second', 'third')).toEqual(['open', 'later', 'later']);
    await passDays(moor, 7);
    expect(await states('first', 'second', 'third')).toEqual(['open', 'open', 'later']);
  });

  it('says in the editor what it opens at once', async () => {
    const { changes } = value(await previewRule(SETUP, { ...rule, firstAtOnce: false }));
    expect(changes.find(({ viewpoint }) => viewpoint === 'Observer')).toMatchObject({
      closes: { count: 1, some: ['first'] },
    });
  });

  it('moved about, closes nothing that was open, and counts by the new order from then on', async () => {
    value(await put('third', 'first'));
    expect(await places()).toEqual({ third: 1, first: 2, second: 3 });
    expect(await states('third', 'first', 'second')).toEqual(['open', 'open', 'open']);
    const { memberId: newcomer } = await join(moor, 'observer-monthly', 'works');
    const seen = value(await viewItem(asMember(newcomer), '/course/second'));
    expect(seen).toMatchObject({ kind: 'doorstep', state: 'later' });
  });

  it('counts a page that comes out in the middle, and not one that is in the trash', async () => {
    await lesson('unfinished');
    value(await put('unfinished', 'first'));
    expect(await places()).toEqual({ third: 1, unfinished: 2, first: 3, second: 4 });
    expect(await states('third', 'unfinished', 'first', 'second')).toEqual(['open', 'open', 'open', 'open']);
    value(await trashItems(SETUP, ['third']));
    expect(await places()).toEqual({ unfinished: 1, first: 2, second: 3 });
  });

  it('leaves what it is told alone where its fields are not sent', async () => {
    const [before] = await rows<{ version: number }>("SELECT version FROM rules WHERE id = 'course'");
    const { each: _, firstAtOnce: _2, ...rest } = rule;
    value(await saveRule(SETUP, { ...rest, version: before?.version }));
    const [after] = await rows("SELECT definition FROM rules WHERE id = 'course'");
    expect(after).toMatchObject({ definition: { each: { n: 1, unit: 'week' }, firstAtOnce: true } });
    expect(JSON.stringify(after)).not.toContain('places');
  });

  it('refuses a length that no calendar holds, and warns where it is longer than the tier is held', async () => {
    expect((await saveRule(SETUP, { ...rule, id: undefined, each: { n: 500, unit: 'week' } })).ok).toBe(
      false,
    );
    const { warnings } = value(await accessWarnings(SETUP));
    expect(warnings.filter(({ kind }) => kind === 'too-long')).toEqual([]);
  });
});
