/** What a process of the product is configured with beside a test. */
export const environment = (moor: { databaseUrl: string; gatewayUrl: string; walletUrl: string }) => ({
  DATABASE_URL: moor.databaseUrl,
  // Nobody listens there: what the gateway tells by webhook is lost, and nothing may depend on it.
  SITE_URL: 'http://127.0.0.1:9',
  SEALING_KEY: 'ab'.repeat(32),
  SIGNING_KEY: 'ab'.repeat(32),
  SMTP_URL: 'smtp://127.0.0.1:9',
  CURLEW_CARDS_URL: moor.gatewayUrl,
  DUNLIN_WALLET_URL: moor.walletUrl,
  LEASE_SECONDS: '2',
  WEBHOOKS_TO_OWN_MACHINE: 'yes',
  LOG_LEVEL: 'silent',
});
