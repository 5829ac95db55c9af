/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { WordingsTried } from '../../../api';
import { templateSchema } from '../../../core/writer';
import { Tried } from './Tried';

const call = jest.fn();
jest.mock('../../client', () => ({ call: (...asked: unknown[]): unknown => call(...asked) }));

const text = templateSchema.parse({
  name: 'Hello',
  subject: 'A question',
  body: 'Would a call suit you?',
  wordings: [
    { language: 'en', subject: 'Short', body: 'A call?', tried: true },
    { language: 'de', subject: 'Kurz', body: 'Ein Anruf?' },
  ],
});
const item: WordingsTried['items'][number] = {
  usualAt: null,
  triedAt: 0,
  usual: { readers: 40, good: 4, range: [0.04, 0.23] },
  tried: { readers: 1, good: 0, range: [0, 0.79] },
  evidence: 1.4,
  verdict: 'open',
};
const changed = jest.fn();
const show = (at: number | null, items: WordingsTried['items'] = [item], mayChange = true) => {
  call.mockResolvedValue({ items });
  render(<Tried id="t1" no={3} text={text} at={at} mayChange={mayChange} onChange={changed} />);
};

test('the shares of both stand with their ranges, and nothing is called better before it is', async () => {
  show(0);
  expect(await screen.findByText(/○ nothing shown so far/)).toBeTruthy();
  expect(call).toHaveBeenCalledWith('wordingsTried', { params: { id: 't1' } });
  expect(screen.getByText(/4 of 40 readers · 4 % to 23 %/)).toBeTruthy();
  expect(screen.getByText(/0 of 1 reader · 0 % to 79 %/)).toBeTruthy();
});
test.each([
  ['too few', /too few readers yet/],
  ['usual', /the usual one is better/],
  ['tried', /✓ the tried one is better/],
] as const)('%s is said', async (verdict, says) => {
  show(null, [{ ...item, verdict }]);
  expect(await screen.findByText(says)).toBeTruthy();
});
test('a wording is tried by a tick, and no more by another', async () => {
  const user = userEvent.setup();
  show(1);
  await user.click(screen.getByRole('checkbox'));
  expect(changed).toHaveBeenLastCalledWith(
    expect.objectContaining({ wordings: [text.wordings![0], { ...text.wordings![1], tried: true }] }),
  );
  expect(screen.queryByRole('group')).toBeNull();
});
test('who may not change sees it, and what has not been kept yet says so', async () => {
  show(0, [], false);
  expect(await screen.findByText('It is tried from the next version on.')).toBeTruthy();
  expect(screen.getByRole('checkbox').hasAttribute('disabled')).toBe(true);
});
