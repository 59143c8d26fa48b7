declare const of: unique symbol;

/** An id, and of what: ids of two kinds are never exchanged. Text of which nobody has said what it is passes for any. */
export type Id<Kind extends string> = string & { readonly [of]?: Kind };

export type CheckoutId = Id<'checkout'>;
export type ChargeId = Id<'charge'>;
export type CreditId = Id<'credit'>;
export type DisputeId = Id<'dispute'>;
export type GatewayAccountId = Id<'gateway account'>;
export type HoldingId = Id<'holding'>;
export type ItemId = Id<'item'>;
export type MemberId = Id<'member'>;
export type OfferId = Id<'offer'>;
/** A version of an offer, and the tax that was added to its prices: what a book knows an offer by. */
export type OfferKey = Id<'offer key'>;
export type OfferVersionId = Id<'offer version'>;
/** Of a payment, and of the attempt that it came from. */
export type PaymentId = Id<'payment'>;
export type PictureId = Id<'picture'>;
export type PurchaseId = Id<'purchase'>;
export type QuoteId = Id<'quote'>;
export type RefundId = Id<'refund'>;
export type SubscriptionId = Id<'subscription'>;
export type TierId = Id<'tier'>;
