import { DEMO_FLOW, DEMO_LIBRARY } from '../../../testing/demo-library';
import { makeBundle, matchBundle } from '../../../core/flow/bundle';
import { EMPTY_LIBRARY } from '../../../core/flow/check';
import { needOf, offersFor, outlook, valueOf } from './from-file';

const bundle = makeBundle(DEMO_FLOW, DEMO_LIBRARY);
const arriving = (library = EMPTY_LIBRARY) => ({ bundle, matches: matchBundle(bundle, library) });
const find = (key: string, library = EMPTY_LIBRARY) => arriving(library).matches.find((match) => match.key === key)!;

describe('a flow that arrives', () => {
  test('every name is offered what it can be settled by, the proposal among it', () => {
    for (const library of [EMPTY_LIBRARY, DEMO_LIBRARY])
      for (const match of arriving(library).matches) expect(offersFor(match).map((offer) => offer.value)).toContain(valueOf(match.choice));
    expect(offersFor(find('team north')).map((offer) => offer.label)).toEqual(['leave it open: the checker will point at it']);
    expect(offersFor(find('team north', { ...EMPTY_LIBRARY, teams: ['west'] })).map((offer) => offer.value)).toEqual(['use west', 'leave']);
    expect(offersFor(find('scorecard Grower fit')).map((offer) => offer.label)).toEqual(['make it from the file']);
  });

  test('what is left open needs a choice, what differs a look', () => {
    const team = find('team north');
    expect(needOf(team, team.choice)).toBe('choice');
    expect(needOf(team, { does: 'use', name: 'west' })).toBe('nothing');
    const other = { ...DEMO_LIBRARY, pipelines: [{ name: 'Glasshouse sales', stages: ['One'] }] };
    const pipeline = find('pipeline Glasshouse sales', other);
    expect(needOf(pipeline, pipeline.choice)).toBe('look');
  });

  test('it is checked as it would stand here, with what would be made for it', () => {
    const home = outlook(arriving(DEMO_LIBRARY), DEMO_LIBRARY, {});
    expect(home).toMatchObject({ make: [], errors: [], problems: {} });
    const empty = outlook(arriving(), EMPTY_LIBRARY, {});
    expect(empty.make.length).toBe(bundle.things.length);
    expect(empty.errors.join()).toContain('north');
    const settled = outlook(
      arriving(),
      { ...EMPTY_LIBRARY, teams: ['west'], connections: ['Box'] },
      { 'team north': { does: 'use', name: 'west' }, 'connection Sales mailbox': { does: 'use', name: 'Box' } },
    );
    expect(settled.errors).toEqual([]);
    expect(settled.text).toContain('"west"');
    const wrong = outlook(arriving(), EMPTY_LIBRARY, { 'team north': { does: 'use', name: 'nobody' } });
    expect(wrong.problems['team north']).toContain('there is no team');
  });
});
