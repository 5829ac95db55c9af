/**
 * The first day's letter: what a workspace has said of itself, what is possible with that, and what each gap would add. Looked at,
 * never written down. Each gap is kept by the use case that keeps it anywhere else.
 */
import { plural } from '../../core/base';
import { dayKey } from '../../core/calendar';
import { type Gap, readSells, sellsText, zonesOf, type Sells } from '../../core/first-day';
import { peopleView } from '../access/people-here';
import { listFlows } from '../flows/store/flows';
import { ownOf } from './example-here';
import { listThings } from '../flows/store/things';
import { statements } from '../flows/things';
import { watchedDoors } from '../intake/watched';
import { mailboxViews, sendersHere } from '../messages/mailboxes';
import { workspace, type World } from '../platform/world';
import { loadCatalogue } from '../records/fields';
import { counts } from '../records/records';
import { researchSettings } from '../research/research-settings';
import { providers } from './providers';

/** The statement that the letter keeps among those we say of ourselves. */
export const SELLS_STATEMENT = 'what we sell';

/** What can be done with a workspace, and the gap that each waits for; none: it can be done from the start. */
interface Possible {
  readonly id: string;
  readonly title: string;
  readonly says: string;
  readonly gap: Gap;
  readonly needs: string;
  readonly href: string;
}
const POSSIBLE: readonly Possible[] = [
  { id: 'list', title: 'Take in a list', says: 'a file, or one record by hand', gap: 'name', needs: '', href: '/sources' },
  { id: 'form', title: 'Put a form on our site', says: 'asks in our words, and says why', gap: 'name', needs: '', href: '/sources' },
  {
    id: 'write',
    title: 'Write to somebody',
    says: 'from the mailbox; a person approves each',
    gap: 'mailbox',
    needs: 'a mailbox',
    href: '/messages/texts',
  },
  {
    id: 'answers',
    title: 'Read the answers',
    says: 'sorted as they come, drafts to approve',
    gap: 'mailbox',
    needs: 'a mailbox',
    href: '/messages',
  },
  { id: 'turns', title: 'Share out in turn', says: 'two people take turns', gap: 'people', needs: 'a colleague', href: '/settings/teams' },
  { id: 'deals', title: 'Follow a deal', says: 'through its stages', gap: 'stages', needs: 'stages', href: '/pipeline' },
  {
    id: 'research',
    title: 'Research a company',
    says: 'at its site, in news and register',
    gap: 'asked',
    needs: 'a question',
    href: '/records?kind=companies',
  },
  { id: 'score', title: 'Score and sort', says: 'by what a good one has', gap: 'good', needs: 'a good one', href: '/scorecards' },
  {
    id: 'meet',
    title: 'Be ready for a meeting',
    says: 'a dossier before each',
    gap: 'beside',
    needs: 'a calendar',
    href: '/sources/watched/new',
  },
  {
    id: 'lookup',
    title: 'Look up addresses',
    says: 'one service after the other, within a budget',
    gap: 'beside',
    needs: 'a service',
    href: '/settings/connections',
  },
];

export interface FirstDay {
  readonly name: string;
  readonly country: string;
  readonly zone: string;
  /** the zones of the country */
  readonly zones: readonly string[];
  readonly sells: Sells;
  readonly mailbox: { readonly name: string; readonly address: string; readonly sends: boolean } | null;
  readonly people: readonly { readonly name: string; readonly isHere: boolean }[];
  readonly pipeline: { readonly id: string; readonly name: string; readonly stages: readonly string[] } | null;
  readonly asked: readonly { readonly id: string; readonly label: string; readonly type: string }[];
  readonly good: readonly string[];
  /** further things that could make one good, of fields that say yes or no */
  readonly offers: readonly string[];
  readonly beside: { readonly calendars: number; readonly services: number; readonly daysOff: number };
  /** what stands beside each gap */
  readonly notes: Readonly<Record<Gap, { readonly stands: boolean; readonly says: string }>>;
  readonly possible: readonly (Possible & { readonly isPossible: boolean })[];
}

export async function firstDay(world: World): Promise<FirstDay> {
  const read = await readAll(world);
  const { space, boxes, here, invites, pipelines, cards, research, services, doors, said, fields } = read;
  const box = boxes.find((entry) => entry.checked?.ok !== false) ?? boxes[0] ?? null;
  const sends = box !== null && box.checked?.ok !== false && box.rests === null;
  const pipeline = pipelines.find((entry) => !entry.retired);
  const stages = pipeline ? ((pipeline.body as { stages?: readonly string[] }).stages ?? []) : [];
  const good = cards.filter((card) => !card.retired).flatMap((card) => criteriaOf(card.body));
  const calendars = doors.filter((door) => door.settings.kind === 'calendar').length;
  const can: Readonly<Record<string, boolean>> = {
    list: true,
    form: true,
    write: sends,
    answers: sends,
    turns: here.length > 1,
    deals: stages.length > 1,
    research: research.questions.length > 0,
    score: good.length > 0,
    meet: calendars > 0,
    lookup: services.length > 0,
  };
  const sells = readSells(said.find(({ id }) => id === SELLS_STATEMENT)?.says ?? '');
  return {
    name: space.name,
    country: space.defaultCountry,
    zone: space.zone,
    zones: zonesOf(space.defaultCountry),
    sells,
    mailbox: box && { name: box.name, address: box.address, sends },
    people: [
      ...here.map(({ name }) => ({ name, isHere: true })),
      ...invites.map((entry) => ({ name: entry.name === '' ? entry.email : entry.name, isHere: false })),
    ],
    pipeline: pipeline ? { id: pipeline.id, name: pipeline.name, stages } : null,
    asked: research.questions.map(({ id, type, wording }) => ({ id, type, label: fields.of('company', id)?.label ?? wording })),
    good,
    offers: fields
      .all('company')
      .filter((field) => field.type === 'yes/no' && field.isRetired !== true)
      .map(({ label }) => label)
      .filter((label) => !good.some((text) => text.includes(label)))
      .slice(0, 3),
    beside: { calendars, services: services.length, daysOff: space.daysOff.length },
    notes: notesOf(read, { box, sends, sells, stages, good, calendars }),
    possible: POSSIBLE.map((entry) => ({ ...entry, isPossible: can[entry.id] === true })),
  };
}

const criteriaOf = (body: unknown): readonly string[] =>
  ((body as { criteria?: readonly { readonly text: string }[] }).criteria ?? []).map(({ text }) => text);

async function readAll(world: World) {
  const [space, boxes, { people, invites }, pipelines, cards, research, services, doors, said, fields, now] = await Promise.all([
    workspace(world.db),
    mailboxViews(world),
    peopleView(world),
    ownOf(world.db, listThings(world.db, 'pipeline')),
    ownOf(world.db, listThings(world.db, 'scorecard')),
    researchSettings(world),
    providers(world),
    watchedDoors(world),
    statements(world.db),
    loadCatalogue(world.db),
    world.clock.now(),
  ]);
  const here = people.filter((person) => person.endedAt === null);
  return { space, boxes, here, invites, pipelines, cards, research, services, doors, said, fields, now };
}

interface Found {
  readonly box: {
    readonly address: string;
    readonly checked: { readonly ok: boolean; readonly steps: readonly { readonly ok: boolean; readonly says: string }[] } | null;
  } | null;
  readonly sends: boolean;
  readonly sells: Sells;
  readonly stages: readonly string[];
  readonly good: readonly string[];
  readonly calendars: number;
}

function notesOf(read: Awaited<ReturnType<typeof readAll>>, { box, sends, sells, stages, good, calendars }: Found): FirstDay['notes'] {
  const { space, here, invites, research, services, now } = read;
  const clock = new Intl.DateTimeFormat('en-GB', { timeZone: space.zone, hour: '2-digit', minute: '2-digit' }).format(now);
  const failed = box?.checked?.steps.find((step) => !step.ok);
  const off = space.daysOff.find((day) => day >= dayKey(now, space.zone));
  const note = (stands: boolean, yes: string, no: string): FirstDay['notes'][Gap] => ({ stands, says: stands ? yes : no });
  return {
    name: note(space.name !== '', 'what forms and messages call us', 'the only thing that must be said'),
    where: note(true, `it is ${clock} there; numbers without a prefix are read as there`, ''),
    sells: note(
      sellsText(sells) !== '',
      'stands under what we say of ourselves: texts and answers may say it',
      'then texts and answers may say it, and nothing more than it',
    ),
    mailbox:
      box === null
        ? note(false, '', 'without one flows research, score and sort, and write nothing')
        : note(
            sends,
            box.checked ? 'checked: sent to itself and arrived' : 'not checked yet',
            failed?.says ?? `${box.address} does not send yet`,
          ),
    people: note(
      here.length > 1,
      invites.length > 0
        ? `${plural(invites.length, 'person', 'people')} asked in, not here yet`
        : `${plural(here.length, 'person', 'people')} here`,
      invites.length > 0
        ? `${plural(invites.length, 'person', 'people')} asked in, not here yet; one is enough to begin`
        : 'one person is enough to begin',
    ),
    stages: note(
      stages.length > 1,
      `${plural(stages.length, 'stage')}; changed under Pipeline → Stages`,
      'with arrows or commas: Asked → Quoted → Won',
    ),
    asked: note(
      research.questions.length > 0,
      `${plural(research.questions.length, 'question')}, answered from their sites with the words that say it`,
      'as “how many vans they run”: answered from their sites, with the words that say it',
    ),
    good: note(
      good.length > 0,
      `${plural(good.length, 'thing')} of the same weight, changed on the scorecard`,
      'as “more than 10 vans”: what is known is compared with it',
    ),
    beside: note(
      calendars > 0 || services.length > 0 || off !== undefined,
      [
        ...(calendars > 0 ? [plural(calendars, 'calendar')] : []),
        ...(services.length > 0 ? [plural(services.length, 'lookup service')] : []),
        ...(off === undefined ? [] : [`${plural(space.daysOff.length, 'day')} off`]),
      ].join(' · '),
      'not needed yet: a calendar before the first meeting, a service once addresses are missing',
    ),
  };
}

/** What work still waits for, of what it needs; `isEmpty`: nobody is on record and no flow runs, so that the desk has nothing to say. */
export async function stillMissing(world: World): Promise<{ readonly isEmpty: boolean; readonly missing: readonly string[] }> {
  const [boxes, flows, cards, records, research] = await Promise.all([
    sendersHere(world),
    listFlows(world.db),
    ownOf(world.db, listThings(world.db, 'scorecard')),
    counts(world),
    researchSettings(world),
  ]);
  const isLive = flows.some((flow) => flow.liveVersionId !== null);
  const needs: readonly (readonly [string, boolean])[] = [
    ['a mailbox to write from', boxes.some((box) => box.sends)],
    ['a question to ask', research.questions.length > 0],
    ['what a good one is', cards.length > 0],
    ['somebody to begin with', records.people > 0],
    ['a flow that is released', isLive],
  ];
  return { isEmpty: records.people === 0 && !isLive, missing: needs.flatMap(([what, isThere]) => (isThere ? [] : [what])) };
}
