'use client';
/** Notifications of this browser, when something new waits on the desk. */
const KEPT = 'told by this browser';

export const mayTellHere = (): boolean => typeof window !== 'undefined' && 'Notification' in window;

/** Whether who sits here wants them, and the browser shows them. */
export const wantsTelling = (): boolean =>
  mayTellHere() && Notification.permission === 'granted' && window.localStorage.getItem(KEPT) === 'yes';

/** Switches them on or off; false where the browser does not allow them. */
export async function tellHere(on: boolean): Promise<boolean> {
  if (!mayTellHere()) return false;
  window.localStorage.setItem(KEPT, on ? 'yes' : 'no');
  if (!on || Notification.permission === 'granted') return true;
  return (await Notification.requestPermission()) === 'granted';
}

/** The words for a desk on which so many things wait now, and so many did before; undefined where nothing is new. */
export const waitingWords = (before: number, now: number): string | undefined =>
  now <= before ? undefined : now === 1 ? '1 thing waits on your desk' : `${now} things wait on your desk, ${now - before} of them new`;

/** Shows it, one notification in the place of the last; a click brings the desk to the front. */
export function showWaiting(words: string): void {
  const shown = new Notification('Millrace', { body: words, tag: 'millrace desk' });
  shown.onclick = () => {
    window.focus();
    window.location.assign('/');
  };
}
