import { existsSync, readdirSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { SCOPES, type Scope } from '../../src/core/api/scopes';
import { may, powersOf, STAFF_ROLES, type StaffRole } from '../../src/core/staff';
import { approveAtWallet } from '../../scripts/lib/stand-ins';
import { VISITOR_ACTOR, WORKER, type Actor } from '../../src/platform/actor';
import { pool } from '../../src/platform/store/db';
import type { Use } from '../../src/platform/use';
import { prepare } from '../../src/checkout/services/lib/prepare';
import { findMember, type Member } from '../../src/people/store/members';
import {
  asMember,
  connectOthers,
  join,
  joinInput,
  joinNew,
  lanternMoor,
  newPerson,
  passDays,
  rows,
  value,
} from './lantern-moor';

const moor = lanternMoor();

/**
 * Who may call what, written by hand: a new use case is added here as well. What belongs to a member is named
 * with how a thing of theirs is found.
 */
const STAFF: Record<string, StaffRole[]> = {
  // Looking at the Desk.
  ...each(
    ['owner', 'editor', 'helper', 'viewer'],
    `lastLeakCheck rulebook accessWarnings mapScreen moreRows differingRows exportMap doorstepsPlace metersPlace passesPlace outsideSites siteAccess addressOfItem matchingItems groupsPlace groupPage groupSources groupsOfMember giftChoices why askedHere contentPlace contentTerms contentCalendar findItems listTrash menuEditor deskFrame clockReport exportMoney codesPlace findAnything findMembers memberFacets myMemberViews saveMemberView deleteMemberView gatewayList gatewayMessages memberFile books
     failedList paymentList subscriptionList upcomingCharges subscriptionFile subscriptionOfPayment tierOverview today productsPlace purchaseOfPayment lettersPlace letterPage addressesPlace mailTopicsOf lettersOpenedBy
     transferList unfinishedCheckouts chooseViewpoint myStaffMails saveMyStaffMails`,
  ),
  ...each(
    ['owner', 'editor'],
    `beginLeakCheck stepLeakCheck previewDraft draftMembers applyDraft undoDraft itemDoorstep saveSiteDoorstep saveDoorstepOfItem meterEditor saveMeter deleteMeter passEditor savePass setSharedPassword revokePass deletePass outsideSite saveOutsideSite newOutsideSecret deleteOutsideSite saveFrameOrigins saveAccessDefault saveOpenWeek itemEditor importItem saveItem ruleEditor ruleHistory deletedRules restoreRule previewRule deleteRule saveRule trashItems restoreItem deleteItems duplicateItem changeItems
     arrangePages saveCategory arrangeCategories addTag renameTag arrangeTags itemRevisions restoreRevision saveDraft discardDraft
     deleteTerm saveKind removeKind saveMenuEntry removeMenuEntry arrangeMenu beginUpload takePiece finishUpload
     saveContentPicture mayUpload savePageRole previewItem deskComments moderateComments mailPost postMail`,
  ),
  ...each(
    ['owner', 'helper'],
    'countForChange changeMembers exportMembers addMember importMembers giveTier changeGift takeGift givePass takePass blockMember unblockMember sendSignInLink removeMember endSubscription loggedMail mailLog addNote removeNote sendMailAgain switchForMember switchWays saveGroup deleteGroup addMembersToGroup addMemberToGroup removeMemberFromGroup addGroupSource removeGroupSource inviteChoices inviteToJoin newLetter saveLetter deleteLetter sendLetter holdLetter tryLetter removeAddress setMailTopic',
  ),
  // Money, tiers and the site itself.
  ...each(
    ['owner'],
    `productEditor saveProduct saveLetterSettings resetProofs setStaffProof webhooksPlace addWebhook changeWebhook removeWebhook webhookLog sendWebhookAgain readAudit exportAudit rolesPlace saveRole staffPlace inviteStaff withdrawInvite changeStaffRole mergeMembers arrangeGateway checkAccount compareBooks connectGateway disconnectGateway keepWebhookSecret registerWebhook connectTransfer beginConsent finishConsent
     confirmTransfer importStatement mayImportStatement ignoreLine restoreLine processAgain refundPayment refundWasSent
     copyOffer copyTier addJoiningCode makeCodes changeCodes codeChoices codeEditor exportCodes removeCodes moveToNewest deleteOffer deleteTier retireOffer retireTier
     saveJoinFields arrangeTiers saveLadder saveOffer maySavePicture savePicture saveTier joinQuestions offerEditor tierDetail
     askToClearTestData goLive readiness mailPreview saveAccountSettings saveDunning saveMail saveSender saveTax
     accountSettings dunningSettings mailSettings staffSettings saveStaffSettings taxSettings tryMail moveClock generalSettings saveGeneral themeSettings saveTheme exportSite importStep apiKeys makeApiKey revokeApiKey listWording reword`,
  ),
};
const PUBLIC = words(
  `lookAtCode inviteAsked acceptInvite codeAsked embeddedItem frameAsked takeFrameGrant askGate outsideDoor enterOutside whoseKey claimReads claimPasses enterSharedPassword leaveAddress isPassLinkGood takeReadLink enterByLink enterCode sendCodeAgain joinPage tiersOnOffer prepareCheckout receiveGatewayEvent seePicture shareWithAlike alikeNameOf openFile privateFeed feedFile askForCode
   signIn signOut whoIsThere siteMenu siteFacts startCheckout isLinkGood takeLink kindAt kindOf listAll listArchive listNames searchSite servingPages notFoundPage listFeed listItems viewItem
   oneTimeAsked enterOneTime askForPasskey signInByPasskey whoIsLooking itemComments mailOffLink turnMailOff askForMails mailLink confirmMails letterSeen letterRead productPage productOnSale beginAccount registering lookAtPassCode enterPassCode`,
);
/** For any signed-in member, about themselves alone: their input names no id of others. */
const OWN = words(
  `redeemCode membersRoom letFrameIn keepReadingPlace readingPlace myFeed makeFeed revokeFeed changeAddress changeDetails deleteAccount submitCheckout myAccount myData changePassword mySettings signOutEverywhere myDocuments
   myOneTime beginOneTime confirmOneTime renewRecoveryCodes endOneTime myPasskeys beginPasskey addPasskey removePasskey endMySession writeComment myMailTopics setMyMailTopic hasMyComments buyProduct myPurchases`,
);
const SYSTEM = words(
  `applyGatewayEvents clearTestData compareDueBooks issueDueDocuments returnMoney runOneDue sendMails setUpSite settleAgreements
   sendWebhooks tidyUp repairPages remindAndExpire writeReminders writeSummaries writeLetters settlePurchases endGifts rotateKeys`,
);
/** For programs, by the scope of their key. */
const KEYS: Record<string, Scope> = {
  apiDecision: 'decisions:read',
  apiDecisions: 'decisions:read',
  apiItems: 'content:read',
  apiItem: 'content:read',
  apiMembers: 'members:read',
  apiMember: 'members:read',
  apiSubscriptions: 'members:read',
  apiOrder: 'members:read',
  apiPutOrder: 'members:write',
  apiEndOrder: 'members:write',
};
type Theirs = {
  subscription: string;
  quote: string;
  document: string;
  payment: string;
  joining: string;
  waiting: string;
  agreement: string;
  comment: string;
  purchase: string;
};
/** About a thing of a member's: what names it, and which staff may for any member. */
const OWNED: Record<string, { input: (theirs: Theirs) => unknown; staff?: StaffRole[] }> = {
  sendPurchaseCode: { input: ({ purchase }) => purchase, staff: ['owner', 'helper'] },
  endPassDevice: {
    input: ({ purchase }) => ({ purchaseId: purchase, deviceId: purchase }),
    staff: ['owner', 'helper'],
  },
  deleteMyComment: { input: ({ comment }) => comment },
  afterCheckout: { input: ({ joining }) => joining },
  pendingCheckout: { input: ({ waiting }) => waiting },
  checkoutToPay: { input: ({ waiting }) => waiting },
  checkoutToPayAsPdf: { input: ({ waiting }) => waiting },
  returnFromWallet: { input: ({ joining }) => joining },
  returnFromApproval: { input: ({ agreement }) => agreement },
  methodChoices: { input: ({ subscription }) => subscription },
  changeMethod: {
    input: ({ subscription }) => ({ subscriptionId: subscription, accountId: moor.accountId }),
  },
  payOwed: { input: ({ subscription }) => subscription },
  renewSubscription: { input: ({ subscription }) => ({ subscriptionId: subscription, until: 'never' }) },
  switchLater: { input: ({ quote }) => quote },
  undoSwitchLater: { input: ({ subscription }) => subscription },
  ...Object.fromEntries(
    ['readDocument', 'documentAsPdf'].map((name) => [
      name,
      { input: ({ document }: Theirs) => document, staff: [...STAFF_ROLES] },
    ]),
  ),
  invoiceOfPayment: { input: ({ payment }) => payment, staff: [...STAFF_ROLES] },
  invoiceToPay: { input: ({ subscription }) => subscription, staff: [...STAFF_ROLES] },
  invoiceToPayAsPdf: { input: ({ subscription }) => subscription, staff: [...STAFF_ROLES] },
  pauseSubscription: { input: ({ subscription }) => subscription, staff: ['owner', 'helper'] },
  resumeSubscription: { input: ({ subscription }) => subscription, staff: ['owner', 'helper'] },
  cancelSubscription: { input: ({ subscription }) => subscription, staff: ['owner', 'helper'] },
  undoCancel: { input: ({ subscription }) => subscription, staff: ['owner', 'helper'] },
};

function words(text: string): string[] {
  return text.trim().split(/\s+/);
}
function each(roles: StaffRole[], names: string): Record<string, StaffRole[]> {
  return Object.fromEntries(words(names).map((name) => [name, roles]));
}

const staffAs = (role: StaffRole): Actor => ({
  kind: 'staff',
  memberId: '00000000-0000-4000-8000-0000000000aa',
  staffRole: role,
});
/** An input that no schema takes: permitted callers are told so, and nothing happens. */
const NONSENSE = Symbol('nonsense') as unknown;

const uses = new Map<string, Use<unknown>>();
const strays: string[] = [];
let theirs: Theirs;
let right: Actor;
let wrong: Actor;

/** A quote of a switch that comes later. */
async function quoteOf(member: Member): Promise<string> {
  const action = (await prepare('gazer-free', member))?.action;
  return action?.kind === 'switch' ? action.quoteId : '';
}

beforeAll(async () => {
  const rooms = readdirSync('src').map((room) => `src/${room}/services`);
  const files = rooms
    .filter(existsSync)
    .flatMap((room) => readdirSync(room).map((name) => `${room}/${name}`));
  for (const file of files.filter((name) => name.endsWith('.ts'))) {
    const exported = (await import(`../../${file}`)) as Record<string, unknown>;
    for (const [name, thing] of Object.entries(exported)) {
      if (typeof thing !== 'function') continue;
      if ('use' in thing) uses.set(name, thing as Use<unknown>);
      else strays.push(`${file}: ${name}`);
    }
  }
  const { wallet, bank } = await connectOthers(moor);
  const { memberId, subscription } = await join(moor, 'observer-monthly', 'works');
  await passDays(moor, 16);
  right = asMember(memberId);
  wrong = asMember((await join(moor, 'warden-monthly', 'works')).memberId);
  const member = (await findMember(pool(), memberId))!;
  const first = async (sql: string): Promise<string> =>
    (await rows<{ id: string }>(sql, [memberId]))[0]?.id ?? '';
  const waiting = await joinInput(moor, 'eclipse-week-once', null, {
    accountId: bank,
    name: member.name,
    email: member.email,
  });
  value(await joinNew(waiting));
  const asked = await joinInput(moor, 'mirror-makers-instalments', null, {
    accountId: wallet,
    name: member.name,
    email: member.email,
  });
  const joined = value(await joinNew(asked));
  if (joined.state === 'approve') await approveAtWallet(joined.url);
  theirs = {
    subscription: subscription.id,
    quote: await quoteOf(member),
    payment: await first(
      'SELECT p.id FROM payments p JOIN charges c ON c.id = p.charge_id JOIN subscriptions s ON s.id = c.subscription_id WHERE s.member_id = $1 AND p.gateway_ref IS NOT NULL',
    ),
    document: '',
    joining: await first(`SELECT id FROM checkouts WHERE member_id = $1 AND state = 'done'`),
    waiting: waiting.checkoutId,
    agreement: await first(
      'SELECT a.id FROM agreements a JOIN subscriptions s ON s.id = a.subscription_id WHERE s.member_id = $1',
    ),
    comment: await first(
      `INSERT INTO comments (item_id, member_id, words, state, form_key, at)
       SELECT id, $1, 'Mine', 'shown', gen_random_uuid(), now() FROM items LIMIT 1 RETURNING id`,
    ),
    purchase: await first(
      `WITH product AS (INSERT INTO products (id, kind, tier_id, name, amount, currency, on_sale) VALUES ('card', 'gift-card', 'observer', 'Card', 600, 'GBP', true) RETURNING id)
       INSERT INTO purchases (id, member_id, mode, product_id, kind, item, state, charges_issued, at) SELECT gen_random_uuid(), $1, 'test', id, 'gift-card', 'observer', 'ended', 1, now() FROM product RETURNING id`,
    ),
  };
  theirs.document = value(await uses.get('invoiceOfPayment')!(right, theirs.payment)) as string;
  expect(Object.entries(theirs).filter(([, id]) => !id)).toEqual([]);
});

const codeOf = async (name: string, actor: Actor, input: unknown = NONSENSE): Promise<string> => {
  const answer = await uses.get(name)!(actor, input);
  return answer.ok ? 'done' : (answer.code ?? 'refused');
};

it('every function of every service is a use case, and who may call it is written down here', () => {
  expect(strays).toEqual([]);
  expect([...uses.keys()].sort()).toEqual(
    [...Object.keys(STAFF), ...PUBLIC, ...OWN, ...SYSTEM, ...Object.keys(KEYS), ...Object.keys(OWNED)].sort(),
  );
});

it('what members who hold the same are answered alike is written down here', () => {
  const alike = [...uses].filter(([, { use }]) => use.isAlike).map(([name]) => name);
  expect(alike.sort()).toEqual(
    words(
      `alikeNameOf itemComments kindAt kindOf listArchive listItems listNames notFoundPage servingPages shareWithAlike siteFacts siteMenu
       viewItem whoIsLooking whoIsThere`,
    ),
  );
});

describe('for programs with a key', () => {
  it.each(Object.entries(KEYS))('%s', async (name, scope) => {
    const withKey = (...scopes: Scope[]): Actor => ({ ...staffAs('owner'), key: { id: 'k', scopes } });
    for (const nobody of [VISITOR_ACTOR, right, staffAs('owner')])
      expect(await codeOf(name, nobody)).toBe('sign-in');
    expect(await codeOf(name, withKey(...SCOPES.filter((other) => other !== scope)))).toBe('forbidden');
    expect(await codeOf(name, withKey(scope))).toBe('invalid');
  });
});

describe('for staff', () => {
  it.each(Object.entries(STAFF))('%s', async (name, roles) => {
    expect(await codeOf(name, VISITOR_ACTOR)).toBe('sign-in');
    expect(await codeOf(name, right)).toBe('forbidden');
    for (const role of STAFF_ROLES)
      expect([role, await codeOf(name, staffAs(role))]).toEqual([
        role,
        roles.includes(role) ? 'invalid' : 'forbidden',
      ]);
    // The right that the maker knows is the one that is meant here.
    const { rights = [] } = uses.get(name)!.use;
    const isEnough = (role: StaffRole): boolean => rights.some((asked) => may(powersOf(role, {}), asked));
    expect(STAFF_ROLES.filter(isEnough)).toEqual(roles);
  });
});

describe('for the site itself', () => {
  it.each(SYSTEM)('%s', async (name) => {
    for (const actor of [VISITOR_ACTOR, right, staffAs('owner')])
      expect(await codeOf(name, actor)).toBe('forbidden');
    expect(await codeOf(name, WORKER)).toBe('invalid');
  });
});

describe('for anyone', () => {
  it.each(PUBLIC)('%s', async (name) => {
    for (const actor of [VISITOR_ACTOR, right, staffAs('viewer')])
      expect(await codeOf(name, actor)).toBe('invalid');
  });
});

describe('for any signed-in member, about themselves', () => {
  it.each(OWN)('%s', async (name) => {
    expect(await codeOf(name, VISITOR_ACTOR)).toBe('sign-in');
    expect(await codeOf(name, right)).toBe('invalid');
  });

  it('someone else’s session cannot be ended', async () => {
    const person = await newPerson();
    const [session] = await rows<{ id: string }>(
      `INSERT INTO sessions (token_hash, member_id, expires_at) VALUES ('\\x01', $1, now() + interval '1 day') RETURNING id`,
      [person.memberId],
    );
    expect(await codeOf('endMySession', right, session!.id)).toBe('refused');
    expect(await codeOf('endMySession', person, session!.id)).toBe('done');
  });
});

describe('for the member whose it is', () => {
  it.each(Object.entries(OWNED))('%s', async (name, { input, staff = [] }) => {
    expect(await codeOf(name, VISITOR_ACTOR, input(theirs))).toBe('sign-in');
    expect(await codeOf(name, wrong, input(theirs))).toBe('missing');
    for (const role of STAFF_ROLES.filter((each) => !staff.includes(each)))
      expect([role, await codeOf(name, staffAs(role), input(theirs))]).toEqual([role, 'missing']);
    expect(await codeOf(name, right)).toBe('invalid');
    const own = await codeOf(name, right, input(theirs));
    // Nothing of theirs is owed by transfer, so there is no invoice to pay; everything else answers them.
    if (!name.startsWith('invoiceToPay')) expect(['done', 'refused']).toContain(own);
    for (const role of staff)
      expect(['forbidden', 'sign-in']).not.toContain(await codeOf(name, staffAs(role), input(theirs)));
  });

  it('and not for an id that nobody has', async () => {
    const nobody = '00000000-0000-4000-8000-000000000000';
    const ids = Object.fromEntries(Object.keys(theirs).map((key) => [key, nobody])) as Theirs;
    for (const [name, { input }] of Object.entries(OWNED))
      for (const actor of [right, staffAs('owner')])
        expect([name, await codeOf(name, actor, input(ids))]).toEqual([name, 'missing']);
  });
});

it('refusals are audited with caller and use case, and cannot flood the audit', async () => {
  const stranger = asMember('00000000-0000-4000-8000-0000000000bb');
  for (let n = 0; n < 40; n++) await codeOf('memberFile', stranger, right.memberId);
  const refusals = await rows<{ subject: string; actor_id: string }>(
    `SELECT subject, actor_id FROM audit WHERE action = 'refused' AND actor_id = $1`,
    [stranger.memberId],
  );
  expect(refusals[0]).toEqual({ subject: 'use:member-file', actor_id: stranger.memberId });
  expect(refusals.length).toBeLessThanOrEqual(30);
});
