/**
 * @jest-environment jsdom
 *
 * What stands beside what was understood: times, a second kind, and somebody named instead who is taken in by a click.
 */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NamedInstead } from './NamedInstead';
import { Understood } from './Understood';

const push = jest.fn();
jest.mock('next/navigation', () => ({ useRouter: () => ({ push }) }));
const call = jest.fn();
jest.mock('../../client', () => ({ call: (...args: readonly unknown[]): unknown => call(...args) as unknown }));

const asking = {
  busy: false,
  ask: jest.fn((asked: Promise<unknown>, _says: unknown, then?: (answer: never) => void) => {
    void asked.then((answer) => {
      then?.(answer as never);
    });
  }),
};

test('whoever is named is taken in by a click, and the page of that person comes next', async () => {
  call.mockResolvedValue({ personId: 'p7', isNew: true });
  render(<NamedInstead messageId="m1" named={{ name: 'Rhona Blyth', email: 'r.blyth@o.example' }} asking={asking as never} />);
  expect(screen.getByText('Rhona Blyth')).toBeTruthy();
  expect(screen.getByText('r.blyth@o.example')).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'take them in' }));
  expect(call).toHaveBeenCalledWith('takeInNamed', { params: { id: 'm1' } });
  expect(push).toHaveBeenCalledWith('/records/people/p7');
});

test('of an address alone the address is the name; who may not decide sees no button', () => {
  const { container } = render(<NamedInstead messageId="m1" named={{ name: null, email: 'r.blyth@o.example' }} asking={undefined} />);
  expect(container.textContent).toContain('names instead r.blyth@o.example');
  expect(screen.queryByRole('button')).toBeNull();
});

test('times are shown as their clocks show them, and what else is said beside the kind', () => {
  const reading = {
    kind: 'interested',
    objection: null,
    when: null,
    quote: null,
    plan: 'stop' as const,
    confidence: 0.8,
    also: ['question'],
    times: ['2026-12-01T09:15', '2026-12-07'],
  };
  const { container } = render(<Understood reading={reading} zone="America/New_York" onNotSo={undefined} />);
  expect(container.textContent).toContain('also asks something · their time: Tue 1 Dec 09:15 or Mon 7 Dec');
});
