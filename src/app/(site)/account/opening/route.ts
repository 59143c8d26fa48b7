import ical from 'ical-generator';
import { membersRoom } from '@/access/services/members-room';
import { currentActor, currentSite, refusal } from '@/app/session';
import { localDate } from '@/core/calendar';
import { config } from '@/platform/config';

/** When something opens to the member, as a calendar (RFC 5545): each on its day in the site's zone. */
export async function GET(): Promise<Response> {
  const room = await membersRoom(await currentActor());
  if (!room.ok) return refusal(room);
  const site = await currentSite();
  const calendar = ical({ name: site.name, prodId: { company: site.name, product: 'Nest Key' } });
  for (const { id, title, path, opensAt } of room.value.next)
    calendar.createEvent({
      id: `${id}@${new URL(config().SITE_URL).hostname}`,
      start: `${localDate(opensAt, site.zone)}T00:00:00Z`,
      allDay: true,
      summary: title,
      url: `${config().SITE_URL}${path}`,
    });
  return new Response(calendar.toString(), {
    headers: {
      'content-type': 'text/calendar; charset=utf-8',
      'content-disposition': 'attachment; filename="opening.ics"',
      'cache-control': 'private, no-store',
    },
  });
}
