import { CHARGED } from '@/core/billing/states';
import type { Instant } from '@/core/instants';
import type { Offer } from '@/core/offers/offer';
import { offerSchema } from '@/core/offers/offer-schema';
import { listed } from '@/platform/store/conditions';
import { many, type Db } from '@/platform/store/db';
import type { Mode } from '@/platform/store/site';
import type { OfferId, OfferVersionId } from '@/core/ids';

/** A version of an offer, and how many run on it. */
export type VersionCount = {
  versionId: OfferVersionId;
  version: number;
  definition: Offer;
  createdAt: Instant;
  running: number;
  /** Of those running, how many have a next period and are not moved yet. */
  movable: number;
  moving: number;
};

export async function countByVersion(db: Db, offerId: OfferId, mode: Mode): Promise<VersionCount[]> {
  const rows = await many<
    Omit<VersionCount, 'running' | 'movable' | 'moving'> & {
      running: bigint;
      movable: bigint;
      moving: bigint;
    }
  >(
    db,
    `SELECT v.id AS version_id, v.version, v.definition, v.created_at,
       count(s.id) FILTER (WHERE s.state NOT IN ('pending', 'ended')) AS running,
       count(s.id) FILTER (WHERE ${MOVABLE}) AS movable,
       count(s.id) FILTER (WHERE s.moves_to IS NOT NULL AND s.state <> 'ended') AS moving
     FROM offer_versions v LEFT JOIN subscriptions s ON s.offer_version_id = v.id AND s.mode = $2
     WHERE v.offer_id = $1 GROUP BY v.id ORDER BY v.version DESC`,
    [offerId, mode],
    { definition: offerSchema },
  );
  return rows.map((row) => ({
    ...row,
    running: Number(row.running),
    movable: Number(row.movable),
    moving: Number(row.moving),
  }));
}

/** Subscriptions that continue at `due_at` by themselves: not those that are cancelled, paused or paid for good. */
const MOVABLE = `s.state IN ${listed(CHARGED)} AND s.due_at IS NOT NULL AND s.moves_to IS NULL AND s.began_at IS NOT NULL`;

/** Subscriptions on other versions of an offer that could be moved to another. */
export async function listMovable(
  db: Db,
  offerId: OfferId,
  mode: Mode,
  toVersionId: OfferVersionId,
): Promise<string[]> {
  const rows = await many<{ id: string }>(
    db,
    `SELECT s.id FROM subscriptions s JOIN offer_versions v ON v.id = s.offer_version_id
     WHERE v.offer_id = $1 AND s.mode = $2 AND v.id <> $3 AND ${MOVABLE} ORDER BY s.id`,
    [offerId, mode, toVersionId],
  );
  return rows.map((row) => row.id);
}
