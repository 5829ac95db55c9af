import { HERE_EVERY_MS, type LiveEvent } from '../../api';

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
  const open = (): void => {
    source ??= new EventSource(`/live${flowId === undefined ? '' : `?flow=${encodeURIComponent(flowId)}`}`);
    // What happened between the page's making and now, or while the line was down, was not heard: the page asks afresh.
    source.onopen = () => {
      tell({ kind: 'work' });
    };
    source.onmessage = (message: MessageEvent<string>) => {
      // Our own server speaks here: what it says was checked there.
      tell(JSON.parse(message.data) as LiveEvent);
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
