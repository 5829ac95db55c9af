/**
 * @jest-environment jsdom
 *
 * One line typed by hand: what is offered, what is understood, what is taken.
 */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { DEMO_LIBRARY } from '../../../testing/demo-library';
import { LineEditor } from './LineEditor';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: jest.fn() }) }));

const ABOVE = 'flow "X"\nabout person\n\ntake in from hand\n';
function open(initial = '', more: { readonly gone?: boolean } = {}) {
  const heard = { taken: [] as string[], left: 0 };
  const view = render(
    <LineEditor
      initial={initial}
      label="New line"
      library={DEMO_LIBRARY}
      above={ABOVE}
      gone={more.gone ?? false}
      onTyped={() => undefined}
      onTake={(typed) => heard.taken.push(typed)}
      onCancel={() => {
        heard.left += 1;
      }}
    />,
  );
  return { ...view, heard, area: screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'New line' }) };
}

test('a whole line is understood as a sentence and taken by Enter', async () => {
  const { heard, area } = open();
  await userEvent.type(area, 'keep when email != null');
  expect(screen.getByRole('status').textContent).toContain('Keep when e-mail is known');
  await userEvent.keyboard('{Enter}');
  expect(heard.taken).toEqual(['keep when email != null']);
});

test('what is not understood is not taken; Escape leaves', async () => {
  const { heard, area } = open();
  await userEvent.type(area, 'zzzz qqqq');
  await userEvent.keyboard('{Enter}');
  expect(heard.taken).toEqual([]);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Take it over' }).disabled).toBe(true);
  await userEvent.keyboard('{Escape}');
  expect(heard.left).toBe(1);
});

test('Tab puts in what is offered first, the arrows choose another', async () => {
  const { area } = open();
  await userEvent.type(area, 'sc');
  const [first] = screen.getByLabelText('Completions').querySelectorAll('.code');
  await userEvent.keyboard('{Tab}');
  expect(area.value.startsWith(first?.textContent?.split(' ')[0] ?? '?')).toBe(true);
});

test('what somebody else did to the line meanwhile is said, and can be gone on with', async () => {
  const { area, rerender, heard } = open('note "a"');
  await userEvent.type(area, ' ');
  rerender(
    <LineEditor
      initial={'note "theirs"'}
      label="New line"
      library={DEMO_LIBRARY}
      above={ABOVE}
      gone={false}
      onTyped={() => undefined}
      onTake={(typed) => heard.taken.push(typed)}
      onCancel={() => undefined}
    />,
  );
  expect(screen.getByText(/somebody changed this line meanwhile/)).toBeTruthy();
  await userEvent.click(screen.getByRole('button', { name: 'go on with theirs' }));
  expect(area.value).toBe('note "theirs"');
});
