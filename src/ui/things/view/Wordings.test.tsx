/** @jest-environment jsdom */
import { fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import type { TextTrial } from '../../../api';
import { templateSchema, type MessageTemplate } from '../../../core/writer';
import type { WordingAt } from '../state/wordings';
import { Wordings } from './Wordings';

const TEXT = templateSchema.parse({
  name: 'First contact',
  subject: 'Vans',
  body: 'Hello',
  wordings: [{ language: 'de', subject: 'Wagen', body: 'Guten Tag' }],
});
const TRIAL: TextTrial = {
  of: 12,
  isSample: false,
  all: 12,
  passed: 12,
  failed: [],
  restsOn: [],
  wordings: [7, 5],
  without: [{ language: 'pl', n: 3 }],
  readers: [],
};

let kept: MessageTemplate;
function Bench({ mayChange }: { readonly mayChange: boolean }) {
  const [text, setText] = useState<MessageTemplate>(TEXT);
  const [at, setAt] = useState<WordingAt>(null);
  kept = text;
  return <Wordings text={text} at={at} trial={TRIAL} mayChange={mayChange} onChoose={setAt} onChange={setText} />;
}
const button = (name: RegExp) => screen.getByRole('button', { name });

test('each wording with how many get it; the open one is for whom it says', () => {
  render(<Bench mayChange />);
  expect(button(/^English 7 readers/).getAttribute('aria-pressed')).toBe('true');
  expect(screen.queryByRole('textbox', { name: 'Only when' })).toBeNull();
  fireEvent.click(button(/^German 5 readers/));
  fireEvent.change(screen.getByRole('textbox', { name: 'Only when' }), { target: { value: 'company.country = "AT"' } });
  expect(kept.wordings?.[0]).toMatchObject({ when: 'company.country = "AT"', body: 'Guten Tag' });
  expect(button(/^German, company.country/)).toBeTruthy();
});

test('a language that readers read and nobody wrote is written from here, and taken out again', () => {
  render(<Bench mayChange />);
  expect(screen.getByText(/3 Polish readers/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Write it in Polish' }));
  expect(kept.wordings?.map(({ language, body }) => [language, body])).toEqual([
    ['de', 'Guten Tag'],
    ['pl', 'Hello'],
  ]);
  expect(button(/^Polish/).getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(button(/take this wording out/));
  expect(kept.wordings).toHaveLength(1);
  expect(button(/^English/).getAttribute('aria-pressed')).toBe('true');
});

test('who may not change sees all of it and changes nothing', () => {
  render(<Bench mayChange={false} />);
  expect(screen.queryByRole('button', { name: 'Write it in Polish' })).toBeNull();
  fireEvent.click(button(/^German/));
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Only when' }).disabled).toBe(true);
  expect(screen.queryByRole('button', { name: /take this wording out/ })).toBeNull();
});
