import { hostname, networkInterfaces } from 'node:os';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/** A host as addresses write it: IPv6 in brackets, lower case. */
const written = (host: string): string =>
  (host.includes(':') && !host.startsWith('[') ? `[${host}]` : host).toLowerCase();

/** Whether only programs on this machine can reach a server that listens on a host. */
export const isLoopback = (host: string): boolean =>
  LOOPBACK.includes(written(host)) || /^127\.\d+\.\d+\.\d+$/.test(host);

/** Addresses and names of this machine in its networks. */
function ownHosts(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) => all ?? []);
  const name = hostname().toLowerCase();
  return [...addresses.map(({ address }) => written(address.replace(/%.*$/, ''))), name, `${name}.local`];
}

/**
 * Hosts that a request may name. On loopback they are the same for every interface; beyond it they are the addresses and names
 * of this machine.
 */
export const knownHosts = (host: string): Set<string> =>
  new Set([...LOOPBACK, written(host), ...(isLoopback(host) ? [] : ownHosts())]);

/** The address of a server that another machine can open: one of this machine's where it listens on all of them. */
export function reachableHost(host: string): string {
  if (host !== '0.0.0.0' && host !== '::') return written(host);
  const all = Object.values(networkInterfaces()).flatMap((one) => one ?? []);
  const outer = all.find(({ internal, family }) => !internal && family === 'IPv4');
  return outer?.address ?? '127.0.0.1';
}
