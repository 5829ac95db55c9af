/**
 * @jest-environment jsdom
 *
 * A text of several lines: typed, left, only read; and no style of its own that the policy of a page would refuse.
 */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { TextArea } from './TextArea';

const box = () => screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'What they wrote' });

function Typed({ onLeft }: { readonly onLeft: (text: string) => void }) {
  const [text, setText] = useState('one');
  return (
    <TextArea
      label="What they wrote"
      value={text}
      onChange={setText}
      onBlur={() => {
        onLeft(text);
      }}
    />
  );
}

test('is told what is typed, and when it is left', async () => {
  const left = jest.fn();
  render(<Typed onLeft={left} />);
  await userEvent.type(box(), '{Enter}two');
  expect(box().value).toBe('one\ntwo');
  await userEvent.tab();
  expect(left).toHaveBeenCalledWith('one\ntwo');
});

test('what is only read is not changed, and code is not looked at for its spelling', async () => {
  render(<TextArea label="What they wrote" value="<iframe>" readOnly isCode />);
  await userEvent.type(box(), 'x');
  expect(box().value).toBe('<iframe>');
  expect(box().getAttribute('spellcheck')).toBe('false');
});

test('writes no style into the page, and shows its name where that is asked', () => {
  const { container, rerender } = render(<TextArea label="What they wrote" value="" />);
  expect(container.querySelectorAll('[style]')).toHaveLength(0);
  expect(container.querySelector('span')).toBeNull();
  rerender(<TextArea label="What they wrote" shown value="" />);
  expect(container.querySelector('span')?.textContent).toBe('What they wrote');
});
