import { networkInterfaces } from 'node:os';

/** Private addresses of IPv4. @see RFC 1918 */
const isPrivate = (address) => /^(10\.|192\.168\.|172\.(1[6-9]|2\d|3[01])\.)/.test(address);

/** This machine's addresses on the local network, private ones first; none of the machine's own loop. */
export function localAddresses(interfaces = networkInterfaces()) {
  const found = Object.values(interfaces)
    .flat()
    .filter((one) => one && one.family === 'IPv4' && !one.internal)
    .map(({ address }) => address);
  return [...found.filter(isPrivate), ...found.filter((address) => !isPrivate(address))];
}
