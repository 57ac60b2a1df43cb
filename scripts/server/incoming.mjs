/** What is settled about a request before the application sees it. */
import { randomBytes } from 'node:crypto';
import { BlockList, isIP } from 'node:net';

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT']);
const FORWARDED = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'x-forwarded-port', 'x-real-ip'];
export const REQUEST_NUMBER = 'x-request-number';

/** Letters and digits that cannot be taken for each other, read out at the machine. */
const ALPHABET = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';

/** A number to find a request by in the log, such as K7QM-2X9D. */
export function newRequestNumber() {
  const letters = [...randomBytes(8)].map((byte) => ALPHABET[byte % ALPHABET.length]).join('');
  return `${letters.slice(0, 4)}-${letters.slice(4)}`;
}

/** Addresses and networks as one list. @param {string} text separated by commas */
export function proxyList(text) {
  const list = new BlockList();
  for (const part of text.split(',').map((p) => p.trim()).filter((p) => p !== '')) {
    const [address, bits] = part.split('/');
    const family = isIP(address) === 6 ? 'ipv6' : 'ipv4';
    if (bits === undefined) list.addAddress(address, family);
    else list.addSubnet(address, Number(bits), family);
  }
  return list;
}

/** Whether a socket's other end is one of the trusted web servers. */
export function isTrusted(list, remoteAddress) {
  if (!remoteAddress) return false;
  const address = remoteAddress.replace(/^::ffff:(?=\d+\.)/, '');
  return list.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');
}

function isWellFormed(url) {
  try {
    const decoded = decodeURIComponent(url);
    return !decoded.includes('\0');
  } catch {
    return false;
  }
}

/** Why a request is not answered at all: { status, words }; null where it may pass. */
export function refusalOf({ method, url }) {
  if (!METHODS.has(method)) return { status: 405, words: 'Only GET, HEAD, POST and PUT are answered here.' };
  if (!url.startsWith('/') || !isWellFormed(url)) return { status: 400, words: 'That address cannot be read.' };
  return null;
}

/** Drops what a client says of itself unless a trusted web server sent it, and gives the request its number. */
export function settleHeaders(request, proxies) {
  if (!isTrusted(proxies, request.socket.remoteAddress))
    for (const name of FORWARDED) delete request.headers[name];
  const number = newRequestNumber();
  request.headers[REQUEST_NUMBER] = number;
  return number;
}
