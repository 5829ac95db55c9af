/**
 * Which addresses Millrace connects to. Promises: whatever names a host - a name, a number in any spelling, a redirect - is resolved
 * once, every address it leads to is looked at, and the connection goes to an address that was looked at; private networks are
 * reached only by a connection that the owner has let; hosts ending in `.example` exist only where a stand-in serves them.
 * Refuses: knowing what is said to a host.
 */
export { dialAgent, dialTo, isPrivateAddress, NotConnected, onTheWire, type DialRules } from './dial';
export { callJson, refuseStatus, unreadable } from './json';
export { isSigned, signature } from './signature';
export { handOver, tryRoute, type Relay } from './smtp';
