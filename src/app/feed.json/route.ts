import { feedAs } from '@/app/public-feed';

export const GET = (): Promise<Response> => feedAs('application/feed+json', (feed) => feed.json1());
