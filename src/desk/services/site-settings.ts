import { wholeArrangement } from '@/core/account-sections';
import { listCountries } from '@/platform/countries';
import { deskLocale } from '@/words/languages';
import { nothing } from '@/platform/inputs';
import { done } from '@/platform/result';
import { currentSite } from '@/platform/site';
import { pool } from '@/platform/store/db';
import { alikeUse, staffUse } from '@/platform/use';
import { listTiers } from '@/tiers/store/tiers';

/** What every page may say of the site. */
export const siteFacts = alikeUse('site-facts', nothing, async () => {
  const { name, zone, mode, currency, language, reworded, mayDeleteAccount, tax, theme, markId } =
    await currentSite();
  return done({
    theme,
    markId,
    name,
    zone,
    mode,
    currency,
    language,
    reworded,
    mayDeleteAccount,
    hasTax: tax.way !== 'none',
  });
});

const bySettings = staffUse('change settings');
const onSale = async () => (await listTiers(pool())).filter((tier) => !tier.retiredAt);

export const taxSettings = bySettings('tax-settings', nothing, async () => {
  const { tax, homeCountry, seller, taxNumber, documentPrefix, language } = await currentSite();
  return done({
    tax,
    homeCountry,
    seller,
    taxNumber,
    documentPrefix,
    tiers: await onSale(),
    countries: listCountries(deskLocale(language)),
  });
});

export const dunningSettings = bySettings('dunning-settings', nothing, async () => {
  const { retryDays, graceDays } = await currentSite();
  return done({ retryDays, graceDays });
});

export const staffSettings = staffUse('set up the site')('staff-settings', nothing, async () => {
  const { staffIdleMinutes, refundAsksAbove, currency, asksStaffProof } = await currentSite();
  return done({ staffIdleMinutes, refundAsksAbove, currency, asksStaffProof });
});

export const accountSettings = bySettings('account-settings', nothing, async () => {
  const { accountSections, mayDeleteAccount } = await currentSite();
  return done({
    sections: wholeArrangement(accountSections),
    mayDelete: mayDeleteAccount,
    tiers: (await onSale()).map(({ id, name, accountSections: own }) => ({
      id,
      name,
      sections: own && wholeArrangement(own),
    })),
  });
});

export const mailSettings = bySettings('mail-settings', nothing, async () => {
  const { senderName, senderAddress, mails } = await currentSite();
  return done({ senderName, senderAddress, mails });
});
