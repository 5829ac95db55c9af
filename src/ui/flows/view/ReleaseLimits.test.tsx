/**
 * @jest-environment jsdom
 *
 * How a release begins: from now on, or with those who came before.
 */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FIRST_LIMITS } from '../state/release';
import { ReleaseLimits } from './ReleaseLimits';

const shown = (cameBefore: { readonly by: string; readonly people: number } | null) => {
  const heard = jest.fn();
  render(
    <ReleaseLimits
      limits={FIRST_LIMITS}
      problems={{}}
      startsAt={null}
      zone="Europe/London"
      underWay={0}
      liveNo={null}
      cameBefore={cameBefore}
      onChange={heard}
    />,
  );
  return heard;
};

test('those who came before are left as they are unless somebody takes them in', async () => {
  const heard = shown({ by: 'file “May fair”', people: 3 });
  expect(screen.getByText('3 people came before')).toBeTruthy();
  expect(screen.getByText('by file “May fair”, not in this flow')).toBeTruthy();
  await userEvent.click(screen.getByRole('combobox', { name: 'People who came before' }));
  await userEvent.click(screen.getByRole('option', { name: 'taken in too, oldest first' }));
  expect(heard).toHaveBeenCalledWith({ ...FIRST_LIMITS, cameBefore: 'take in' });
});

test.each([null, { by: 'form “Enquiry”', people: 0 }])('nobody came before: nothing is asked (%j)', (cameBefore) => {
  shown(cameBefore);
  expect(screen.queryByRole('combobox', { name: 'People who came before' })).toBeNull();
});

test('what is typed is told by its field', async () => {
  const heard = shown(null);
  await userEvent.type(screen.getByRole('textbox', { name: 'Records a day' }), '4');
  expect(heard).toHaveBeenCalledWith({ ...FIRST_LIMITS, dailyLimit: '4' });
});
