import { EMPTY_LIBRARY } from '../check';
import { parseFlow } from '../syntax';
import { compilePlan, END, instructionOf, sideBySide } from './index';

const plan = (body: string) => compilePlan(parseFlow(`flow "X"\nabout person\n\n${body}`).tree, EMPTY_LIBRARY);

describe('compiled flow', () => {
  test('lines lead to the next, the last to the end', () => {
    expect(plan('take in from hand\nnote "a"\nstop "b"\n').instructions.map((line) => line.next)).toEqual([1, 2, END]);
  });

  test('the last line of an arm leads below the split; a split with no arm taken too', () => {
    const compiled = plan(
      'take in from hand\nsplit\n  when email != null\n    note "a"\n    note "b"\n  else\n    note "c"\nnote "below"\n',
    );
    const [, split, , b, c] = compiled.instructions;
    expect(split?.arms.map((arm) => [arm.says, arm.target])).toEqual([
      ['when e-mail is known', 2],
      ['else', 4],
    ]);
    expect([split?.next, b?.next, c?.next]).toEqual([5, 5, 5]);
  });

  test('an empty arm leads straight below the split', () => {
    const compiled = plan('take in from hand\nsplit\n  when email != null\n  else\n    note "c"\nnote "below"\n');
    expect(compiled.instructions[1]?.arms[0]?.target).toBe(3);
  });

  test('splits nest', () => {
    const compiled = plan(
      'take in from hand\nsplit\n  when email != null\n    split\n      when phone != null\n        note "both"\n    note "mail"\n  else\n    stop "x"\nnote "below"\n',
    );
    const [, outer, inner, both, mail] = compiled.instructions;
    expect(outer?.arms[0]?.target).toBe(2);
    expect(inner?.next).toBe(4);
    expect(both?.next).toBe(4);
    expect(mail?.next).toBe(6);
  });

  test('a split switched off is one line that leads below its arms', () => {
    const compiled = plan('take in from hand\noff: split\n  when email != null\n    note "a"\nnote "below"\n');
    expect(compiled.instructions.map((line) => line.step.verb)).toEqual(['take in', 'split', 'note']);
    expect(compiled.instructions[1]?.next).toBe(2);
  });

  describe('lines that only find something out', () => {
    const SITE = 'read company from website as site\n  heads: number "How many work there?"\n';
    const NEWS = 'read company from news as news\n  grows: yes/no "Do they grow?"\n';
    const CAREER = 'read person from people as career\n  since: year "Since when in this role?"\n';
    const LOOK = 'look up email with "Work e-mail"\n';
    const beside = (body: string) => plan(`take in from hand\n${body}note "x"\n`).instructions.map((line) => line.beside);

    test('run beside those above them, as far as they need nothing of these', () => {
      expect(beside(SITE + CAREER + LOOK)).toEqual([[], [2, 3], [3], [], []]);
      expect(beside(SITE + NEWS)).toEqual([[], [2], [], []]);
    });
    test.each([
      ['asks the same place', SITE + SITE.replace('heads', 'hands')],
      ['needs a field that is read above', `${CAREER.replace('since', 'email')}${LOOK}`],
      ['is behind a line that does something', `${SITE}set status = "x"\n${LOOK}`],
      ['needs the site, which is read above', `${NEWS.replace('grows: yes/no', 'website: text')}${SITE}`],
    ])('not one that %s', (_, body) => {
      expect(beside(body)[1]).toEqual([]);
    });
    test('those switched off are passed over, and begin nothing', () => {
      expect(beside(`${SITE}off: ${NEWS}${CAREER}`).slice(1, 4)).toEqual([[3], [], []]);
    });
    test('below a split, the last line of an arm begins what all arms come to', () => {
      const body = `take in from hand\nsplit\n  when email != null\n    ${CAREER.replace('\n', '\n    ')}${SITE}`;
      const compiled = plan(body);
      expect(compiled.instructions[2]?.beside).toEqual([3]);
      expect([...sideBySide(parseFlow(`flow "X"\nabout person\n\n${body}`).tree, EMPTY_LIBRARY).values()]).toEqual([3]);
    });
  });

  test('is found by mark', () => {
    const compiled = plan('take in from hand\nnote "a" #kz\n');
    expect(instructionOf(compiled, 'kz')?.number).toBe(2);
    expect(instructionOf(compiled, 'nothing')).toBeUndefined();
  });
});
