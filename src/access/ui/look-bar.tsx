import { Button } from '@/kit/button';

/** Stands at the foot while staff see the site through other eyes. */
export function LookBar({ who }: { who: string }) {
  return (
    <form
      action="/look"
      method="post"
      className="sticky bottom-0 z-20 flex flex-wrap items-center justify-center gap-4 bg-lamp px-4 py-2 text-[#1c2a2e]"
    >
      <p className="font-semibold">You see the site as {who}. Nothing you do here is written down.</p>
      <input type="hidden" name="as" value="self" />
      <Button type="submit" look="quiet" className="min-h-8 py-1">
        Back to the Desk
      </Button>
    </form>
  );
}
