import { DEMO_LIBRARY } from '../../../testing/demo-library';
import { parseFlow, verbs } from '../syntax';
import { completeAt } from './index';

/** The bar marks the caret. */
function complete(withCaret: string) {
  const at = withCaret.indexOf('|');
  const text = withCaret.replace('|', '');
  const found = completeAt(text, at, DEMO_LIBRARY);
  return {
    labels: found?.options.map((option) => option.label) ?? [],
    insert: (label: string) => {
      const option = found?.options.find((entry) => entry.label === label);
      return option && found ? text.slice(0, found.from) + option.insert + text.slice(at) : undefined;
    },
  };
}

describe('completion', () => {
  test('an empty line offers every verb', () => {
    const { labels } = complete('|');
    for (const { verb } of verbs()) expect(labels).toContain(verb);
  });

  test.each([
    ['sc|', 'score', 'score company with "'],
    ['  fol|', 'follow up', '  follow up with "'],
    ['score company with "Gr|', 'Grower fit', 'score company with "Grower fit"'],
    ['look up email with "|', 'Work e-mail', 'look up email with "Work e-mail"'],
    ['open deal in "Glasshouse sales" at "Q|', 'Qualified', 'open deal in "Glasshouse sales" at "Qualified"'],
    ['assign deal in turn among "|', 'north', 'assign deal in turn among "north"'],
    ['ask "|', 'owner', 'ask "owner"'],
    ['write email "|', 'Second look', 'write email "Second look"'],
    ['take in from file "|', 'Autumn fair', 'take in from file "Autumn fair"'],
    ['uses connection mail = "|', 'Sales mailbox', 'uses connection mail = "Sales mailbox"'],
    ['keep when em|', 'email', 'keep when email'],
    ['keep when email != null and company.he|', 'company.heated_area', 'keep when email != null and company.heated_area'],
    ['score company with "Grower fit" as fit\n  when fit.po|', 'fit.points', 'score company with "Grower fit" as fit\n  when fit.points'],
  ])('%s offers %s', (at, label, result) => {
    const { labels, insert } = complete(at);
    expect(labels).toContain(label);
    expect(insert(label)).toBe(result);
  });

  test('fields tell their meaning and a sample', () => {
    const found = completeAt('keep when company.heated', 24, DEMO_LIBRARY);
    expect(found?.options[0]).toMatchObject({ label: 'company.heated_area', detail: 'heated area, like 4.2 ha' });
  });

  test.each(['note "Worth |', 'score company wi|', 'x = "|'])('nothing is offered at %s', (at) => {
    expect(complete(at).labels).toEqual([]);
  });

  test('what a verb begins is flow text: completed with a name, it parses', () => {
    for (const line of ['score company with "Grower fit" as fit', 'follow up with "First contact"', 'match company, person', 'wait 3 days'])
      expect(parseFlow(`flow "X"\nabout person\n\n${line}\n`).problems).toEqual([]);
  });
});
