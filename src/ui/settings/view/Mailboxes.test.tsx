/**
 * @jest-environment jsdom
 *
 * The mailboxes of a workspace as somebody sees and uses them.
 */
import { render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { MailboxShape } from '../../../api';
import { Mailboxes } from './Mailboxes';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: jest.fn() }), usePathname: () => '/settings/mailboxes' }));

const BOX: MailboxShape = {
  name: 'Sales',
  address: 'sales@firm.example',
  displayName: 'Firm',
  zone: 'Europe/London',
  dailyLimit: 40,
  personGapDays: 2,
  minutesApart: 2,
  rampUp: null,
  signature: '',
  limitToday: 40,
  replyTo: null,
  route: null,
  hasPassword: false,
  checked: null,
  back: { sent: 40, bounced: 1, complained: 0, standing: 'good', says: '1 of the last 40 mails came back' },
  rests: null,
  domain: { seen: null, key: null },
  usedBy: ['plan First contact'],
};
const RESTING: MailboxShape = {
  ...BOX,
  back: { sent: 40, bounced: 6, complained: 0, standing: 'too many', says: '6 of the last 40 mails came back' },
  rests: { since: Date.parse('2026-11-24T10:00:00Z'), why: '6 of the last 40 mails came back' },
};
const show = (first: readonly MailboxShape[], may: { readonly mayChange?: boolean; readonly mayResume?: boolean } = {}) =>
  render(
    <Mailboxes
      index={[]}
      first={first}
      services={[]}
      zones={['Europe/London']}
      space={{ name: 'Firm', zone: 'Europe/London' }}
      now={Date.parse('2026-11-24T12:00:00Z')}
      mayChange={may.mayChange ?? false}
      mayResume={may.mayResume ?? false}
    />,
  );

test('without a mailbox it says what is missing, and whoever may makes one', async () => {
  show([], { mayChange: true });
  expect(screen.getByText('Nothing can be sent yet')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'Add a mailbox' }));
  expect(screen.queryByText('Nothing can be sent yet')).toBeNull();
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'name' }).value).toBe('');
});

test('a mailbox that was never tried says so; only who may change it tries it', () => {
  show([BOX]);
  expect(screen.getByText('not checked')).toBeTruthy();
  expect(screen.getByText('never tried')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Check' })).toBeNull();
  expect(screen.getByText(/1 of the last 40 mails came back/)).toBeTruthy();
});

test('one that rests says why, and whoever may release lets it send again', async () => {
  const asked: string[] = [];
  const answer = { ok: true, status: 200, headers: new Map([['content-type', 'application/json']]), json: async () => ({ items: [BOX] }) };
  globalThis.fetch = jest.fn(async (url: string, init: { method: string }) => {
    asked.push(`${init.method} ${url}`);
    return answer;
  }) as unknown as typeof fetch;
  const { unmount } = show([RESTING]);
  expect(screen.getByText('rests')).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Let it send again' })).toBeNull();
  unmount();
  show([RESTING], { mayResume: true });
  await userEvent.click(screen.getByRole('button', { name: 'Let it send again' }));
  expect(asked).toEqual(['POST /api/v1/mailboxes/Sales/resume']);
  expect(await screen.findByText(/Sales sends again/)).toBeTruthy();
  expect(screen.queryByText('rests')).toBeNull();
});

test('a step that failed stands with what to do', () => {
  show([
    {
      ...BOX,
      checked: {
        ok: false,
        at: Date.parse('2026-11-24T11:00:00Z'),
        steps: [{ what: 'sign in', ok: false, says: 'the password is not taken' }],
      },
    },
  ]);
  expect(screen.getByText('does not send')).toBeTruthy();
  const step = screen.getByText('sign in').closest('li');
  expect(within(step as HTMLElement).getByText(/the password is not taken/)).toBeTruthy();
});
