/**
 * @jest-environment jsdom
 *
 * The letter: a gap is written in place, said back while it is typed, kept when it is left, and put back by Escape.
 */
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { FirstDayGap, FirstDayShape } from '../../../api';
import { FirstDay } from './FirstDay';

const call = jest.fn();
jest.mock('../../client', () => ({
  call: (...args: readonly unknown[]): unknown => call(...args) as unknown,
  sayProblem: (error: Error) => error.message,
}));
jest.mock('next/navigation', () => ({ usePathname: () => '/first-day', useRouter: () => ({}) }));

const GAPS: readonly FirstDayGap[] = ['name', 'where', 'sells', 'mailbox', 'people', 'stages', 'asked', 'good', 'beside'];
const LETTER: FirstDayShape = {
  name: 'Hartsmead',
  country: 'GB',
  zone: 'Europe/London',
  zones: ['Europe/London'],
  sells: { what: '', whom: '' },
  mailbox: null,
  people: [{ name: 'Wenna Tregarth', isHere: true }],
  pipeline: null,
  asked: [{ id: 'horses', label: 'horses', type: 'number' }],
  good: [],
  offers: ['buy in bulk'],
  beside: { calendars: 0, services: 0, daysOff: 0 },
  notes: Object.fromEntries(
    GAPS.map((gap) => [gap, { stands: gap === 'name' || gap === 'where', says: `note of ${gap}` }]),
  ) as FirstDayShape['notes'],
  possible: [
    { id: 'list', title: 'Take in a list', says: 'a file', gap: 'name', needs: '', href: '/sources', isPossible: true },
    {
      id: 'deals',
      title: 'Follow a deal',
      says: 'through its stages',
      gap: 'stages',
      needs: 'stages',
      href: '/pipeline',
      isPossible: false,
    },
  ],
};
const show = (may = true) =>
  render(
    <FirstDay
      example={{ offers: [], here: null }}
      mayErase
      first={LETTER}
      zones={['Europe/London']}
      mayChange={may}
      mayKeepSecrets={may}
    />,
  );

beforeEach(() => {
  call.mockReset();
});

test('what waits for a gap leads to it; what is typed is said back, and Enter keeps it once', async () => {
  call.mockImplementation((operation: string) =>
    Promise.resolve(
      operation === 'readFirstDay'
        ? { ok: true, says: ['Asked → Won'] }
        : {
            ...LETTER,
            pipeline: { id: 'p', name: 'Sales', stages: ['Asked', 'Won'] },
            notes: { ...LETTER.notes, stages: { stands: true, says: '2 stages' } },
          },
    ),
  );
  const user = userEvent.setup();
  show();
  expect(screen.getByText(/1 of 8 sentences stand/)).toBeTruthy();
  await user.click(screen.getByRole('button', { name: '○ needs stages' }));
  await user.type(screen.getByRole('textbox', { name: 'the stages of a deal' }), 'Asked, Won');
  await screen.findByText('Asked → Won');
  await user.keyboard('{Enter}');
  await screen.findByRole('button', { name: 'the stages of a deal: Asked → Won' });
  expect(screen.getByText(/2 of 8 sentences stand/)).toBeTruthy();
  expect(call.mock.calls.filter(([operation]) => operation === 'fillFirstDay')).toEqual([
    ['fillFirstDay', { body: { gap: 'stages', text: 'Asked, Won' } }],
  ]);
});

test('Escape puts back what stood there; leaving an unchanged gap keeps nothing', async () => {
  const user = userEvent.setup();
  show();
  await user.click(screen.getByRole('button', { name: 'our name: Hartsmead' }));
  await user.type(screen.getByRole('textbox', { name: 'our name' }), ' Feed');
  await user.keyboard('{Escape}');
  screen.getByRole('button', { name: 'our name: Hartsmead' }).focus();
  await user.keyboard('{Enter}');
  await user.tab();
  expect(call).not.toHaveBeenCalled();
});

test('what is refused stays in its gap, with the reason beside it', async () => {
  call.mockRejectedValue(new Error('where is Trewarden? say the country with it'));
  const user = userEvent.setup();
  show();
  await user.click(screen.getByRole('button', { name: 'our place: United Kingdom' }));
  const box = screen.getByRole('textbox', { name: 'our place' });
  await user.clear(box);
  await user.type(box, 'Trewarden{Enter}');
  await screen.findByText('where is Trewarden? say the country with it');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'our place' }).value).toBe('Trewarden');
});

test('a colleague is asked in by name and address, and the way in is shown once', async () => {
  call.mockImplementation((operation: string) =>
    Promise.resolve(operation === 'invite' ? { link: 'http://house.example/join/x' } : LETTER),
  );
  const user = userEvent.setup();
  show();
  await user.click(screen.getByRole('button', { name: /^a colleague/ }));
  await user.type(screen.getByRole('textbox', { name: 'a colleague' }), 'Ivo{Enter}');
  await screen.findByText(/a name and an e-mail address/);
  expect(call).not.toHaveBeenCalled();
  await user.type(screen.getByRole('textbox', { name: 'a colleague' }), ' Castell, ivo@hartsmead.example{Enter}');
  await screen.findByText('http://house.example/join/x');
  expect(call).toHaveBeenCalledWith('invite', {
    body: { name: 'Ivo Castell', email: 'ivo@hartsmead.example', role: 'builder', title: '' },
  });
});

test('an offer is taken by a click', async () => {
  call.mockResolvedValue({ ...LETTER, good: ['buy in bulk'], offers: [] });
  const user = userEvent.setup();
  show();
  await user.click(screen.getByRole('button', { name: 'buy in bulk' }));
  await waitFor(() => {
    expect(screen.queryByRole('button', { name: 'buy in bulk' })).toBeNull();
  });
  expect(call).toHaveBeenCalledWith('fillFirstDay', { body: { gap: 'good', text: 'buy in bulk' } });
});

test('who may look only reads the letter, and somebody else’s filling is seen', () => {
  const { rerender } = show(false);
  expect(screen.queryByRole('button', { name: /our name/ })).toBeNull();
  expect(screen.getByText('Hartsmead', { selector: '.letter-gap' })).toBeTruthy();
  act(() => {
    rerender(
      <FirstDay
        example={{ offers: [], here: null }}
        mayErase
        first={{ ...LETTER, name: 'Hartsmead & Sons' }}
        zones={[]}
        mayChange={false}
        mayKeepSecrets={false}
      />,
    );
  });
  expect(screen.getByText('Hartsmead & Sons', { selector: '.letter-gap' })).toBeTruthy();
});
