import { SAYABLE } from '../../../core/reply';
import { teachesText, thenText, withKind, type Correction } from './correct';

const correction: Correction = { kind: 'unclear', objection: null, words: 'Not this year.' };

test('an objection is about something, other kinds are not', () => {
  const objects = withKind(correction, 'objection');
  expect(objects.objection).toBe('price');
  expect(withKind({ ...objects, objection: 'timing' }, 'objection').objection).toBe('timing');
  expect(withKind(objects, 'thanks')).toEqual({ ...correction, kind: 'thanks' });
});

test('what mail servers write cannot be said by a person; each kind stands once', () => {
  expect(SAYABLE).not.toContain('bounce');
  expect(new Set(SAYABLE).size).toBe(SAYABLE.length);
  expect(SAYABLE).toEqual(expect.arrayContaining(['question', 'unsubscribe', 'out of office']));
});

test('what follows and what is taught are said', () => {
  expect(thenText({ plan: 'stop', when: null, bars: true })).toContain('nobody is written to');
  expect(thenText({ plan: 'pause', when: '2027-02-15', bars: false })).toBe('what is planned waits until Mon 15 Feb');
  expect(thenText({ plan: 'continue', when: null, bars: false })).toBe('what is planned goes on');
  const follows = { plan: 'stop' as const, when: null, bars: false };
  const other = { messageId: '1', threadId: null, personName: null, quote: '', was: 'unclear', wasObjection: null };
  expect(teachesText({ follows, read: 40, same: 0, other: [] }, 'x')).toContain('none says it like this');
  expect(teachesText({ follows, read: 40, same: 2, other: [other] }, 'x')).toBe(
    'of the last 40 mails 1 says it like this and was understood otherwise, 2 already so',
  );
  expect(teachesText({ follows, read: 0, same: 0, other: [] }, null)).toBe('only this mail');
});
