/** The one stream of events of a page, on an EventSource and a document that are played by the test. */
import type { LiveEvent } from '../../api';
import { onLive, openLive } from './live';

class Source {
  static readonly opened: Source[] = [];
  onopen: (() => void) | null = null;
  onmessage: ((message: { readonly data: string }) => void) | null = null;
  closed = false;
  constructor(readonly url: string) {
    Source.opened.push(this);
  }
  close(): void {
    this.closed = true;
  }
  say(event: unknown): void {
    this.onmessage?.({ data: JSON.stringify(event) });
  }
}
const page = Object.assign(new EventTarget(), { visibilityState: 'visible' });
const show = (state: 'visible' | 'hidden'): void => {
  page.visibilityState = state;
  page.dispatchEvent(new Event('visibilitychange'));
};
const last = (): Source => Source.opened.at(-1) as Source;
const here = (userId: string): LiveEvent => ({
  kind: 'here',
  flowId: '0b0e8c1e-0000-4000-8000-000000000001',
  userId,
  name: 'Ruud',
  arrived: true,
});
const RUUD = '0b0e8c1e-0000-4000-8000-00000000000a';

beforeAll(() => {
  Object.assign(globalThis, { EventSource: Source, document: page });
});
afterAll(() => {
  Reflect.deleteProperty(globalThis, 'EventSource');
  Reflect.deleteProperty(globalThis, 'document');
});

test('an open stream hands on what it hears; what is no event is left out, and after a lost line everything may be new', () => {
  const heard: LiveEvent[] = [];
  const close = openLive('a flow');
  const leave = onLive((event) => heard.push(event));
  last().onopen?.();
  last().say({ kind: 'new', topics: ['desk'] });
  last().say({ kind: 'nonsense' });
  expect(last().url).toBe('/live?flow=a%20flow');
  expect(heard).toEqual([{ kind: 'new', topics: ['desk'] }]);
  last().onopen?.();
  expect(heard.at(-1)).toEqual({ kind: 'new', topics: ['everything'] });
  leave();
  last().say({ kind: 'new', topics: ['desk'] });
  expect(heard).toHaveLength(2);
  close();
  expect(last().closed).toBe(true);
});

test('who listens later hears who is here already, once', () => {
  const close = openLive(undefined);
  last().say(here(RUUD));
  last().say(here(RUUD));
  const heard: LiveEvent[] = [];
  const leave = onLive((event) => heard.push(event));
  expect(heard).toEqual([here(RUUD)]);
  leave();
  close();
});

test('the stream is closed while the page is hidden and opened when it is seen again', () => {
  const close = openLive(undefined);
  const first = last();
  show('hidden');
  expect(first.closed).toBe(true);
  show('visible');
  expect(last()).not.toBe(first);
  expect(last().closed).toBe(false);
  close();
  const ended = Source.opened.length;
  show('hidden');
  show('visible');
  expect(Source.opened).toHaveLength(ended);
});
