/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { call } from '../../client';
import { SecondFactor } from './SecondFactor';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => undefined }) }));
jest.mock('../../client', () => ({ ...jest.requireActual<object>('../../client'), call: jest.fn() }));
const called = call as unknown as jest.Mock;
beforeEach(() => called.mockReset());

const NONE = { since: null, recoveryLeft: 0, required: false };
const ON = { since: Date.parse('2026-11-24T10:00:00Z'), recoveryLeft: 10, required: false };
const show = (first: typeof NONE | typeof ON, mayRequire = false) =>
  render(<SecondFactor first={first} zone="Europe/London" mayRequire={mayRequire} />);
const press = (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
};

test('set up: a picture and a key, the first code, the recovery codes this once', async () => {
  show(NONE);
  called.mockResolvedValueOnce({ picture: '<svg/>', key: 'ABCD EFGH' });
  press('Set it up');
  expect(await screen.findByText('ABCD EFGH')).toBeTruthy();
  expect(screen.getByRole<HTMLImageElement>('img').src).toContain('data:image/svg+xml');
  const code = screen.getByRole('textbox', { name: 'The code it shows' });
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take it into use' }).disabled).toBe(true);
  fireEvent.change(code, { target: { value: '123 456' } });
  called.mockResolvedValueOnce({ codes: ['aaaa-bbbb', 'cccc-dddd'], view: ON });
  press('Take it into use');
  expect(await screen.findByText('aaaa-bbbb')).toBeTruthy();
  expect(called).toHaveBeenLastCalledWith('confirmSecondFactor', { body: { code: '123 456' } });
  press('I have kept them');
  expect(screen.queryByText('aaaa-bbbb')).toBeNull();
  expect(screen.getByText(/10 recovery codes left/)).toBeTruthy();
});

test('a wrong code says so, and nothing is lost', async () => {
  show(ON);
  fireEvent.change(screen.getByRole('textbox', { name: 'A code' }), { target: { value: '000000' } });
  called.mockRejectedValueOnce(new Error('gone'));
  press('Switch it off');
  expect(await screen.findByText(/could not be reached/)).toBeTruthy();
  expect(screen.getByText(/10 recovery codes left/)).toBeTruthy();
});

test('an owner asks it of everybody only with one of their own; others see no such box', async () => {
  const { unmount } = show(NONE, true);
  expect(screen.getByRole<HTMLInputElement>('checkbox').disabled).toBe(true);
  unmount();
  show(ON, true);
  called.mockResolvedValueOnce({ ...ON, required: true });
  fireEvent.click(screen.getByRole('checkbox'));
  expect(await screen.findByText('Who has none sets one up before anything else.')).toBeTruthy();
});

test('where everybody needs one, who has none is told', () => {
  show({ ...NONE, required: true });
  expect(screen.getByText(/Everybody here needs one/)).toBeTruthy();
  expect(screen.queryByRole('checkbox')).toBeNull();
});
