import fs from 'node:fs';
import { catalogueOf, type OwnField } from '../../fields';
import { applyEdits } from '../edit';
import { numberedLines, parseFlow } from '../syntax';
import { partText, sayArm, sayFeel, sayLine, sentenceOf, type Part } from './index';
import { parseFeel } from '../../feel';

const text = fs.readFileSync('demo/flows/trade-fair-visitors.race', 'utf8');
const { tree } = parseFlow(text);
const words = (parts: readonly Part[]): string =>
  parts
    .map((part) => part.text)
    .join(' ')
    .replace(/ ,/g, ',');
const sentence = (verb: string): string =>
  words(
    numberedLines(tree.lines)
      .filter((entry) => entry.line.step.verb === verb)
      .map((entry) => sayLine(entry.line))[0] ?? [],
  );

describe('a sentence as plain text', () => {
  test('has no space before a comma', () => {
    const [line] = parseFlow('flow "S"\nabout person\n\ntake in from file "Fair"\n  once per email\n').tree.lines;
    expect(line && sentenceOf(sayLine(line))).toBe('Take in from file Fair, once per e-mail');
    expect(sentenceOf([])).toBe('');
  });
});

describe('a flow read aloud', () => {
  test.each([
    ['take in', 'Take in from file Autumn fair, once per e-mail'],
    ['keep', 'Keep when company is known and (e-mail is known or company site is known) · else set status to “incomplete”'],
    ['match', 'Match company, person · ask above 0.60 · same above 0.95'],
    ['read', 'Read site for 6 answers, at most 8 pages'],
    ['score', 'Score company with Grower fit as fit'],
    ['look up', 'Look up email with Work e-mail'],
    ['open', 'Open deal in Glasshouse sales at Qualified'],
    ['assign', 'Assign deal in turn among north'],
    ['note', 'Note “Worth writing to: ” + fit why'],
    ['write', 'Write e-mail First contact as opener'],
    ['ask', 'Ask north to approve opener within 2 days · else tell owner'],
    ['follow up', 'Follow up with plan First contact'],
    ['set', 'Set status to “worth a look”'],
    ['stop', 'Stop “disqualified”'],
  ])('%s', (verb, says) => {
    expect(sentence(verb).replace('e-mail with', 'email with')).toBe(says);
  });

  test('arms', () => {
    const split = numberedLines(tree.lines).find((entry) => entry.line.step.verb === 'split')?.line.step;
    expect(split?.verb === 'split' ? split.arms.map((arm) => words(sayArm(arm))) : []).toEqual([
      'when fit is out',
      'when fit ≥ 75',
      'when fit ≥ 50',
      'else',
    ]);
  });

  test.each([
    ['email != null', 'e-mail is known'],
    ['not(email = null or phone = null)', 'not (e-mail is unknown or phone is unknown)'],
    ['company.heated_area between 1 and 2 ha', 'company heated area between 1 and 2 ha'],
    ['company.country in ("GB", "NL")', 'company country among “GB”, “NL”'],
    ['if company.expansion then "a" else "b"', 'if company expansion then “a” else “b”'],
    ['company.expansion = true', 'company expansion is yes'],
  ])('condition %s', (source, says) => {
    const { expr } = parseFeel(source);
    expect(expr && sayFeel(expr)).toBe(says);
  });
});

describe('parts that can be changed', () => {
  const parts = numberedLines(tree.lines).flatMap((entry) => {
    const { step } = entry.line;
    return [...sayLine(entry.line), ...(step.verb === 'split' ? step.arms.flatMap((arm) => sayArm(arm)) : [])];
  });
  const editable = parts.flatMap((part) => (part.edit ? [part.edit] : []));

  test('cover exactly their source in the text', () => {
    expect(editable.length).toBeGreaterThan(20);
    for (const edit of editable) expect(text.slice(edit.from, edit.to).trim()).toBe(partText(edit, edit.source).trim());
  });

  test('put back unchanged, they leave the text as it was', () => {
    for (const edit of editable) {
      const before = text.slice(edit.from, edit.to);
      const insert = before.replace(before.trim(), partText(edit, edit.source));
      expect(applyEdits(text, [{ from: edit.from, to: edit.to, insert }])).toBe(text);
    }
  });

  test('a new threshold is one edit', () => {
    const bar = editable.find((edit) => edit.source.includes('>= 75'));
    expect(bar).toBeDefined();
    if (!bar) return;
    const changed = applyEdits(text, [{ from: bar.from, to: bar.to, insert: partText(bar, 'fit.points >= 80') }]);
    expect(parseFlow(changed).problems).toEqual([]);
    expect(changed).toContain('when fit.points >= 80');
  });

  test('what decides is a condition, what is worked out a formula', () => {
    const edits = (line: string) =>
      parseFlow(`flow "T"\nabout person\n\ntake in from hand\n${line}\n`)
        .tree.lines.flatMap((line) => sayLine(line))
        .flatMap((part) => part.edit?.slot ?? []);
    expect(edits('keep when email != null')).toEqual(['condition']);
    expect(edits('wait for status = "won", at most 2 days')).toEqual(['condition', 'duration']);
    expect(edits('note "Worth a look: " + name')).toEqual(['formula']);
    expect(edits('set status = "won"')).toEqual(['formula']);
    expect(edits('keep when email != null\n  else set status = "lost"')).toEqual(['condition', 'formula']);
    expect(edits('tell "north" name')).toEqual(['addressee', 'formula']);
  });

  test('names are quoted as they must be', () => {
    const team = editable.find((edit) => edit.slot === 'team');
    expect(team && partText(team, 'the "best"')).toBe('"the \\"best\\""');
  });
});

describe('fields as their business calls them', () => {
  const own = (key: string, label: string): OwnField => ({
    record: 'company',
    key,
    label,
    type: 'number',
    group: 'Added by us',
    sample: '',
    words: [],
  });
  const fields = catalogueOf([own('vans', 'Delivery vans'), own('vat', 'VAT rate')]);
  const said = (line: string): string => {
    const [first] = parseFlow(`flow "S"\nabout person\n\n${line}\n`).tree.lines;
    return first ? sentenceOf(sayLine(first, fields)) : '';
  };
  test.each([
    ['keep when company.vans >= 4', 'Keep when company delivery vans ≥ 4'],
    ['keep when not(company.vans in [4..9])', 'Keep when not company delivery vans among 4 to 9'],
    [
      'keep when company.vat > 7 and (company.vans > 1 or email != null)',
      'Keep when company VAT rate > 7 and (company delivery vans > 1 or e-mail is known)',
    ],
    ['set company.vans = 4', 'Set company delivery vans to 4'],
    ['keep when company.unheard_of > 1', 'Keep when company unheard of > 1'],
  ])('%s', (line, sentence) => {
    expect(said(line)).toBe(sentence);
  });
});
