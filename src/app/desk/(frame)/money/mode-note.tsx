import { Link } from '@/kit/link';
import { currentActor, shown } from '@/app/session';
import { deskFrame } from '@/desk/services/desk-frame';
import { Sentence } from '@/kit/sentence';
import { desk } from '@/words/desk';

/** On a live site: that test data is shown apart, and the way to and from it. */
export async function ModeNote({ mode, at }: { mode: 'test' | undefined; at: (mode: string) => string }) {
  const frame = await shown(deskFrame(await currentActor()));
  if (frame.isTest || (!frame.hasTestData && mode === undefined)) return null;
  return mode === 'test' ? (
    <p className="mt-4 rounded-md border border-dashed border-edge px-4 py-2">
      <Sentence
        words={desk('desk-money.test-data-shown')}
        parts={{
          b: (words) => <b>{words}</b>,
          link: (words) => (
            <Link href={at('')} className="text-spruce underline">
              {words}
            </Link>
          ),
        }}
      />
    </p>
  ) : (
    <p className="mt-3 text-[0.9375rem]">
      <Link href={at('test')} className="text-spruce underline">
        {desk('desk-money.look-at-the-test-data')}
      </Link>
    </p>
  );
}
