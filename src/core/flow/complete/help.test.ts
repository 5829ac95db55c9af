import { DEMO_FLOW, DEMO_LIBRARY } from '../../../testing/demo-library';
import { verbs } from '../syntax';
import { helpAt } from './index';

const at = (text: string, words: string, offset = 1) => helpAt(text, text.indexOf(words) + offset, DEMO_LIBRARY);
const deal = 'flow "D"\nabout deal\n\ntake in from hand\nkeep when quiet_days > 4 and person.email != null and contains(title, "x")\n';

describe('help at a word', () => {
  test('every verb is explained where a line begins with it', () => {
    for (const { verb } of verbs()) expect(at(`${verb} x`, verb)?.title).toBe(verb);
    expect(at('off: stop "x"', 'stop')?.says).toContain('Ends the trip');
    expect(at('note "stop it"', 'stop')).toBeUndefined();
  });

  test('a field has its label, type, unit and a sample', () => {
    expect(at('keep when company.heated_area >= 2 ha', 'heated_area', 3)).toMatchObject({
      title: 'company · heated area',
      says: expect.stringMatching(/in ha, like .* ha/),
    });
    expect(at(deal, 'quiet_days')).toMatchObject({
      title: expect.stringContaining('deal · '),
      says: expect.stringContaining('worked out'),
    });
    expect(at(deal, 'person.email')?.title).toContain('person · ');
  });

  test('a named thing has its content; a plan and a text of one name are told apart by the words before', () => {
    expect(at(DEMO_FLOW, '"Grower fit"')).toMatchObject({
      title: 'scorecard Grower fit',
      says: expect.stringContaining('bands hot from 75'),
    });
    expect(at(DEMO_FLOW, 'follow up with "First contact"', 16)?.says).toMatch(/^day 0 /);
    expect(at(DEMO_FLOW, 'write email "First contact"', 14)?.title).toBe('text First contact');
    expect(at(DEMO_FLOW, '"Qualified"')?.says).toBe('of Glasshouse sales');
    expect(at(DEMO_FLOW, '"Work e-mail"')?.says).toMatch(/ at 0\.\d+ €/);
    expect(at('note "nothing known"', 'nothing')).toBeUndefined();
  });

  test('a part of a result has the line it comes from, a function what it takes and gives', () => {
    expect(at(DEMO_FLOW, 'fit.points >= 75', 5)).toMatchObject({
      title: 'fit · points',
      says: expect.stringMatching(/a number of line \d+, score/),
    });
    expect(at(deal, 'contains(')?.says).toBe('takes text, text; gives yes or no');
    expect(at(DEMO_FLOW, 'fit.nothing')).toBeUndefined();
  });

  test('its place is the word’s place, and nowhere is it an error', () => {
    for (let i = 0; i <= DEMO_FLOW.length; i++) {
      const help = helpAt(DEMO_FLOW, i, DEMO_LIBRARY);
      if (help) expect([help.from <= i, help.to >= i, help.says !== '']).toEqual([true, true, true]);
    }
  });
});
