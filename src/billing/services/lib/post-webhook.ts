import { lookup } from 'node:dns';
import { request as overHttp, type RequestOptions } from 'node:http';
import { request as overHttps } from 'node:https';
import { BlockList, isIP, type LookupFunction } from 'node:net';
import { config } from '@/platform/config';

const TIMEOUT_MS = 10_000;

/** Addresses inside of a network, which nobody can be allowed to have the site ask (RFC 6890). */
const PRIVATE = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['224.0.0.0', 3],
] as const)
  PRIVATE.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  ['::', 127],
  ['64:ff9b::', 96],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  PRIVATE.addSubnet(net, bits, 'ipv6');

export function isPrivateAddress(address: string): boolean {
  const family = isIP(address);
  if (family === 0) return true;
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped) return PRIVATE.check(mapped, 'ipv4');
  return PRIVATE.check(address, family === 6 ? 'ipv6' : 'ipv4');
}

/** The address that is looked up is the one that is connected to: a name cannot lead inside after it was checked. */
const lookupOutside: LookupFunction = (hostname, options, callback) => {
  lookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error) {
      callback(error, '', 0);
      return;
    }
    const [first] = addresses;
    if (!first || addresses.some(({ address }) => isPrivateAddress(address)))
      callback(new Error('the address is inside of a network'), '', 0);
    else if (options.all) callback(null, addresses);
    else callback(null, first.address, first.family);
  });
};

/** Posts a message. The answer is the status; redirects are not followed, and what is said beside the status is not read. @throws where nothing answered in time */
export async function postWebhook(
  url: string,
  headers: Record<string, string>,
  body: string,
): Promise<number> {
  const { protocol, hostname } = new URL(url);
  const toOwnMachine = config().WEBHOOKS_TO_OWN_MACHINE === 'yes';
  const host = hostname.replace(/^\[|\]$/g, '');
  if (!toOwnMachine && isIP(host) !== 0 && isPrivateAddress(host))
    throw new Error('the address is inside of a network');
  const options: RequestOptions = {
    method: 'POST',
    headers: {
      ...headers,
      'content-type': 'application/json',
      'user-agent': 'Nest-Key/1',
      connection: 'close',
    },
    signal: AbortSignal.timeout(TIMEOUT_MS),
    agent: false,
    ...(!toOwnMachine && { lookup: lookupOutside }),
  };
  return new Promise((resolve, reject) => {
    const sent = (protocol === 'https:' ? overHttps : overHttp)(url, options, (response) => {
      response.destroy();
      resolve(response.statusCode ?? 0);
    });
    sent.once('error', reject);
    sent.end(body);
  });
}
