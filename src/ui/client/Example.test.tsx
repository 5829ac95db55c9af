/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ExampleView } from '../../api';
import { Example } from './Example';

const call = jest.fn();
jest.mock('./index', () => ({ call: (...asked: unknown[]): unknown => call(...asked), sayProblem: (error: Error) => error.message }));
jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => undefined }) }));

const offers = [{ name: 'north', title: 'Northwall', about: 'A made-up firm', companies: 1, people: 20 }];
const here = {
  title: 'Northwall',
  since: 0,
  flows: [{ id: 'f1', name: 'Fair' }],
  goes: ['1 company', '20 people'],
  stays: ['“Fit”, which Mine uses'],
};
const nothing: ExampleView = { offers, here: null };
const inside: ExampleView = { offers, here };

test('it is begun with, and taken away only after a look at what goes and what stays', async () => {
  const user = userEvent.setup();
  call.mockResolvedValueOnce(inside).mockRejectedValueOnce(new Error('a mail of it is leaving')).mockResolvedValueOnce(nothing);
  render(<Example first={nothing} mayChange />);
  expect(screen.getByText('A made-up firm: 1 company, 20 people, a flow to try')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Begin with Northwall' }));
  expect(call).toHaveBeenCalledWith('beginExample', { body: { name: 'north' } });
  expect(screen.getByRole('link', { name: 'Fair' }).getAttribute('href')).toBe('/flows/f1');
  expect(screen.queryByText(/These go/)).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Remove the example …' }));
  expect(screen.getByText(/These go: 1 company, 20 people/)).toBeTruthy();
  expect(screen.getByText(/These stay, since they are in use: “Fit”, which Mine uses/)).toBeTruthy();
  expect(call).toHaveBeenCalledTimes(1);
  await user.click(screen.getByRole('button', { name: 'Take all of it away' }));
  expect(screen.getByRole('alert').textContent).toBe('a mail of it is leaving');
  await user.click(screen.getByRole('button', { name: 'Take all of it away' }));
  expect(await screen.findByRole('button', { name: 'Begin with Northwall' })).toBeTruthy();
});

test('who may not sees what is here, and nothing to press; without examples there is nothing', () => {
  const { rerender, container } = render(<Example first={inside} mayChange={false} />);
  expect(screen.getByText('Northwall is here')).toBeTruthy();
  expect(screen.queryByRole('button')).toBeNull();
  rerender(<Example key="none" first={{ offers: [], here: null }} mayChange />);
  expect(container.textContent).toBe('');
});
