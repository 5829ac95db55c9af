import { HERE_EVERY_MS, type LiveEvent } from '../../api';

/** Our own server checks what it says; a page that is older than the server leaves out what it does not know. */
const KINDS: ReadonlySet<unknown> = new Set<LiveEvent['kind']>(['new', 'draft', 'here']);
const isLiveEvent = (value: unknown): value is LiveEvent =>
  typeof value === 'object' && value !== null && 'kind' in value && KINDS.has(value.kind);

/**
 * One stream of events for this tab, shared by all its parts. While the tab is hidden it is closed - browsers allow few
 * connections to one server - and when the tab is seen again everything is asked for afresh.
 */
const listeners = new Set<(event: LiveEvent) => void>();
/** Who was last heard of where. A part of the page that wakes later than the stream would else miss who is here until the next beat. */
const here = new Map<string, { readonly event: LiveEvent; readonly at: number }>();

const tell = (event: LiveEvent): void => {
  if (event.kind === 'here') here.set(`${event.flowId} ${event.userId}`, { event, at: performance.now() });
  for (const listener of listeners) listener(event);
};

/** Hears who is here already, and every event from now on until the returned function is called. */
export function onLive(listener: (event: LiveEvent) => void): () => void {
  listeners.add(listener);
  for (const { event, at } of here.values()) if (performance.now() - at < HERE_EVERY_MS) listener(event);
  return () => {
    listeners.delete(listener);
  };
}

/** Opens the stream until the returned function is called; others are told that `flowId` is open here. */
export function openLive(flowId: string | undefined): () => void {
  let source: EventSource | undefined;
  let wasOpen = false;
  const open = (): void => {
    source ??= new EventSource(`/live${flowId === undefined ? '' : `?flow=${encodeURIComponent(flowId)}`}`);
    // The server says what happened since the page was made; what was said while the line was down was not heard.
    source.onopen = () => {
      if (wasOpen) tell({ kind: 'new', topics: ['everything'] });
      wasOpen = true;
    };
    source.onmessage = (message: MessageEvent<string>) => {
      const event: unknown = JSON.parse(message.data);
      if (isLiveEvent(event)) tell(event);
    };
  };
  const close = (): void => {
    source?.close();
    source = undefined;
  };
  const onVisible = (): void => {
    if (document.visibilityState === 'hidden') return close();
    open();
  };
  if (document.visibilityState === 'visible') open();
  document.addEventListener('visibilitychange', onVisible);
  return () => {
    document.removeEventListener('visibilitychange', onVisible);
    close();
  };
}
