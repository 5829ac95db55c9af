import fs from 'node:fs';
import { DEMO_FLOW, DEMO_LIBRARY } from '../../../testing/demo-library';
import { checkFlow, EMPTY_LIBRARY, libraryParts, type Library } from '../check';
import { parseFlow, printFlow } from '../syntax';
import { bundleSchema, makeBundle, matchBundle, namesUsed, settleBundle, type Choice } from './index';

const bundle = makeBundle(DEMO_FLOW, DEMO_LIBRARY);
const settled = (library: Library, choices: Record<string, Choice> = {}) => {
  const result = settleBundle(bundle, library, choices);
  if (!result.ok) throw new Error(result.problems.map((problem) => problem.message).join('; '));
  return result;
};
const problems = (library: Library, choices: Record<string, Choice>): readonly string[] => {
  const result = settleBundle(bundle, library, choices);
  return result.ok ? [] : result.problems.map((problem) => problem.message);
};
const stateOf = (library: Library): Record<string, string> =>
  Object.fromEntries(matchBundle(bundle, library).map((match) => [match.key, match.state]));

describe('a flow that travels', () => {
  test('carries what it names and what that names in turn, and nothing else', () => {
    expect(bundle.things.map((thing) => `${thing.kind} ${thing.name}`).sort()).toEqual(
      namesUsed(DEMO_FLOW, bundle.things)
        .filter((use) => ['scorecard', 'template', 'plan', 'chain', 'pipeline', 'intake', 'field'].includes(use.kind))
        .map((use) => `${use.kind} ${use.name}`)
        .sort(),
    );
    const plan = bundle.things.find((thing) => thing.kind === 'plan');
    expect(plan?.kind === 'plan' && plan.body.touches.length).toBeGreaterThan(1);
    if (plan?.kind === 'plan')
      for (const touch of plan.body.touches)
        expect(bundle.things).toContainEqual(expect.objectContaining({ kind: 'template', name: touch.template }));
    expect(JSON.stringify(bundle)).not.toMatch(/whsec_|@thornwick/);
    expect(bundleSchema.parse(JSON.parse(JSON.stringify(bundle)))).toEqual(bundle);
  });

  const docs = fs.readFileSync('docs/flow-text.md', 'utf8');
  const flows = [
    ...[...docs.matchAll(/```race\n([\s\S]*?)```/g)].map((match) => match[1] ?? ''),
    ...fs.readdirSync('demo/flows').map((file) => fs.readFileSync(`demo/flows/${file}`, 'utf8')),
  ];
  test.each(flows.map((text) => [/flow "([^"]+)"/.exec(text)?.[1] ?? '?', text]))(
    '%s: at home nothing is made; elsewhere what it lacks is only what cannot travel',
    (_name, text) => {
      const travelling = makeBundle(text, DEMO_LIBRARY);
      const home = settleBundle(travelling, DEMO_LIBRARY, {});
      expect(home).toEqual({ ok: true, text: printFlow(parseFlow(text).tree, { marks: true }), make: [] });
      const away = settleBundle(travelling, EMPTY_LIBRARY, {});
      if (!away.ok) throw new Error('settled as proposed');
      expect(away.make).toEqual(travelling.things);
      const errors = checkFlow(parseFlow(away.text), { ...EMPTY_LIBRARY, ...libraryParts(away.make) }).filter(
        (finding) => finding.severity === 'error',
      );
      for (const finding of errors) expect(finding.message).toMatch(/team|connection|mailbox|webhook|person|opening|stage/);
    },
  );

  test('comes back to where it came from as it was, with nothing made', () => {
    const back = settled(DEMO_LIBRARY);
    expect(back.make).toEqual([]);
    expect(back.text).toBe(printFlow(parseFlow(DEMO_FLOW).tree, { marks: true }));
    expect(new Set(Object.values(stateOf(DEMO_LIBRARY)))).toEqual(new Set(['same', 'here']));
  });

  test('brings everything it carries into an empty workspace; teams and mailboxes are for a person to name', () => {
    const { make, text } = settled(EMPTY_LIBRARY);
    expect(make).toEqual(bundle.things);
    const missing = checkFlow(parseFlow(text), { ...EMPTY_LIBRARY, ...libraryParts(make) }).filter(
      (finding) => finding.code === 'unknown thing',
    );
    expect(missing.length).toBeGreaterThan(0);
    for (const finding of missing) expect(finding.message).toMatch(/team|connection|mailbox/);
  });

  test('the names chosen here stand in the text and in the plans that are brought', () => {
    const here: Library = {
      ...EMPTY_LIBRARY,
      teams: ['field sales'],
      connections: ['Our mailbox'],
      templates: DEMO_LIBRARY.templates.slice(0, 1),
    };
    const own = DEMO_LIBRARY.templates[0]!;
    const other: Library = { ...here, templates: [{ ...own, body: 'something else' }] };
    expect(stateOf(other)[`template ${own.name}`]).toBe('differs');
    const { text, make } = settled(other, {
      'team north': { does: 'use', name: 'field sales' },
      'connection Sales mailbox': { does: 'use', name: 'Our mailbox' },
      [`template ${own.name}`]: { does: 'bring', name: `${own.name} 2` },
    });
    expect(text).toContain('assign deal in turn among "field sales"');
    expect(text).toContain(`write email "${own.name} 2"`);
    expect(text).not.toContain('"north"');
    const plan = make.find((thing) => thing.kind === 'plan');
    expect(plan?.kind === 'plan' && plan.body).toMatchObject({ mailbox: 'Our mailbox' });
    expect(plan?.kind === 'plan' && plan.body.touches[0]?.template).toBe(`${own.name} 2`);
    expect(make).toContainEqual({ kind: 'template', name: `${own.name} 2`, body: { ...own, name: `${own.name} 2` } });
  });

  test('what differs is said part by part, and what is here is taken unless a person says otherwise', () => {
    const cards = DEMO_LIBRARY.scorecards.map((card) => ({ ...card, bands: card.bands.map((band) => ({ ...band, from: band.from + 1 })) }));
    const library = { ...DEMO_LIBRARY, scorecards: cards };
    const match = matchBundle(bundle, library).find((entry) => entry.key === 'scorecard Grower fit');
    expect(match).toMatchObject({ state: 'differs', choice: { does: 'use', name: 'Grower fit' }, free: 'Grower fit 2' });
    expect(match?.differences[0]).toBe('bands · hot · from: 76 here, 75 in the file');
    expect(settled(library).make).toEqual([]);
  });

  test('choices that cannot be carried out are refused, each with its reason', () => {
    expect(problems(DEMO_LIBRARY, { 'scorecard Grower fit': { does: 'bring', name: 'Grower fit' } })).toEqual([
      'scorecard “Grower fit”: there is one named “Grower fit” here already',
    ]);
    expect(problems(DEMO_LIBRARY, { 'team north': { does: 'use', name: 'west' } })).toEqual([
      'team “north”: there is no team named “west” here',
    ]);
    expect(problems(EMPTY_LIBRARY, { 'team north': { does: 'bring', name: 'north' } })).toEqual([
      'team “north” is only named in the file: choose one that is here',
    ]);
    expect(problems(DEMO_LIBRARY, { 'plan Nobody’s': { does: 'leave' } })).toEqual(['the flow does not speak of plan Nobody’s']);
  });
});
