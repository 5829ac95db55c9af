import { createSocket } from 'node:dgram';
import { decode, encode, type Answer } from 'dns-packet';
import type { StandIn } from './server';

/** What is said at each name: texts and numbers. */
export type Zone = Readonly<
  Record<
    string,
    {
      readonly txt?: readonly string[] | undefined;
      readonly a?: readonly string[] | undefined;
      readonly mx?: readonly string[] | undefined;
    }
  >
>;

/** A name server (RFC 1035) that knows the names of a made-up world and no other. */
export function startNames(zone: Zone, port: number): Promise<StandIn & { readonly zone: Map<string, Zone[string]> }> {
  const known = new Map(Object.entries(zone));
  const socket = createSocket('udp4');
  socket.on('message', (bytes, from) => {
    const asked = decode(bytes);
    const [question] = asked.questions ?? [];
    if (!question) return;
    const entry = known.get(question.name.toLowerCase());
    const answers: Answer[] = [];
    const { name, type } = question;
    if (type === 'TXT') for (const text of entry?.txt ?? []) answers.push({ type, name, ttl: 60, data: text.match(/.{1,255}/g) ?? [] });
    if (type === 'A') for (const data of entry?.a ?? []) answers.push({ type, name, ttl: 60, data });
    if (type === 'MX') for (const exchange of entry?.mx ?? []) answers.push({ type, name, ttl: 60, data: { preference: 10, exchange } });
    // 3: there is no such name.
    socket.send(
      encode({ type: 'response', id: asked.id ?? 0, flags: 0x100 | (entry ? 0 : 3), questions: [question], answers }),
      from.port,
      from.address,
    );
  });
  return new Promise((resolve, reject) => {
    socket.once('error', reject);
    socket.bind(port, '127.0.0.1', () => {
      resolve({
        port: socket.address().port,
        zone: known,
        close: () =>
          new Promise((done) => {
            socket.close(() => {
              done();
            });
          }),
      });
    });
  });
}
