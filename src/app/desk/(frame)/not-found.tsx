import { LinkButton } from '@/kit/button';
import { desk } from '@/words/desk';

export default function NotFound() {
  return (
    <div className="max-w-prose py-10">
      <h1 className="text-3xl">{desk('desk-frame.not-found')}</h1>
      <p className="mt-2 text-muted">{desk('desk-frame.it-may-have-been-deleted')}</p>
      <LinkButton href="/desk" className="mt-5">
        {desk('desk-frame.to-today')}
      </LinkButton>
    </div>
  );
}
