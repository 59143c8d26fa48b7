import { privateFeedAs, type TokenProps } from '@/app/private-feed';

export const GET = (_: Request, props: TokenProps): Promise<Response> =>
  privateFeedAs(props, 'application/feed+json', (feed) => feed.json1());
