/** One line of live state for each group of settings. */
import { NEARLY_SPENT } from '../../core/lookup';
import { plural } from '../../core/base';
import { dayKey } from '../../core/calendar';
import { SOURCE_NAMES } from '../ports';
import { listTokens } from '../access/store/access';
import { listFields } from '../records/store/fields';
import { listDoNotContact } from '../messages/store/do-not-contact';
import { mailboxViews } from '../messages/mailboxes';
import { peopleView } from '../access/people-here';
import { signInServices } from '../access/sign-in-services';
import { budgetsView } from './budgets';
import { providers } from './providers';
import { researchSettings } from '../research/research-settings';
import { teams } from './teams';
import { workspace, type World } from '../platform/world';

export interface SettingsLine {
  readonly href: string;
  readonly label: string;
  readonly says: string;
  /** something wants somebody */
  readonly wants: boolean;
  /** a rule stands above it */
  readonly begins: boolean;
}

const shortDay = (day: string): string =>
  new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));

/** What the lines are made of. */
async function figuresOf(world: World) {
  const now = await world.clock.now();
  const [space, { people, invites }, groups, fields, boxes, research, barred, open, services, doors, { items: budgets }] =
    await Promise.all([
      workspace(world.db),
      peopleView(world),
      teams(world),
      listFields(world.db),
      mailboxViews(world),
      researchSettings(world),
      listDoNotContact(world.db),
      listTokens(world.db),
      providers(world),
      signInServices(world),
      budgetsView(world),
    ]);
  const here = people.filter((person) => person.endedAt === null);
  const next = groups.find((team) => team.next !== null && team.members.length > 1) ?? groups.find((team) => team.next !== null);
  const failing = boxes.filter((box) => box.checked?.ok === false).length;
  const broken = services.filter((service) => service.checked?.ok === false).length;
  const ending = open.filter((token) => token.endsSoon).length;
  const off = space.daysOff.find((day) => day >= dayKey(now, space.zone));
  const on = SOURCE_NAMES.filter((name) => research.sources.some((source) => source.name === name && !source.off)).length;
  return {
    space,
    here,
    invites,
    groups,
    next,
    fields,
    boxes,
    failing,
    research,
    barred,
    open,
    ending,
    services,
    broken,
    doors,
    budgets,
    off,
    on,
  };
}

type Budgets = Awaited<ReturnType<typeof budgetsView>>['items'];
const isNearlyGone = ({ spentMicro, reservedMicro, limitMicro }: Budgets[number]): boolean =>
  limitMicro !== null && spentMicro + reservedMicro >= NEARLY_SPENT * limitMicro;
const inEuros = (micro: number): string => `${(micro / 1_000_000).toFixed(2)} €`;
function spentSays(budgets: Budgets): string {
  const all = budgets.find(({ kind }) => kind === 'all');
  const spent = `${inEuros(all?.spentMicro ?? 0)} this month`;
  return all?.limitMicro == null ? spent : `${spent} of ${inEuros(all.limitMicro)}`;
}

const line = (href: string, label: string, says: string, more: { wants?: boolean; begins?: boolean } = {}): SettingsLine => ({
  href,
  label,
  says,
  wants: more.wants ?? false,
  begins: more.begins ?? false,
});

type Figures = Awaited<ReturnType<typeof figuresOf>>;

/** Who we are, and what is known and asked here. */
function ofTheHouse({ space, off, here, invites, groups, next, fields, research, on }: Figures): readonly SettingsLine[] {
  return [
    line('/settings', 'The workspace', `${space.zone} · ${off === undefined ? 'no day off ahead' : `off ${shortDay(off)}`}`),
    line(
      '/settings/people',
      'People and roles',
      `${plural(here.length, 'person', 'people')}${invites.length > 0 ? ` · ${invites.length} invited` : ''}`,
    ),
    line(
      '/settings/teams',
      'Teams and turns',
      `${plural(groups.length, 'team')}${next ? ` · ${next.name}: ${next.next?.name.split(' ')[0] ?? ''} next` : ''}`,
    ),
    line('/settings/fields', 'Fields', `${plural(fields.filter((field) => !field.isRetired).length, 'field')} of our own`, {
      begins: true,
    }),
    line('/settings/reading', 'Questions and reading', `${plural(research.questions.length, 'question')} · ${plural(on, 'place')}`),
  ];
}
/** What stands between us and the outside. */
function ofTheOutside({ boxes, failing, services, broken, doors, budgets }: Figures): readonly SettingsLine[] {
  const shut = doors.flatMap(({ accounts }) => accounts).filter(({ problem }) => problem !== null).length;
  return [
    line(
      '/settings/mailboxes',
      'Mailboxes and sending',
      failing > 0 ? `${failing} of ${boxes.length} does not send` : boxes.map((box) => `${box.dailyLimit} a day`).join(' · ') || 'none yet',
      { wants: failing > 0 || boxes.length === 0, begins: true },
    ),
    line(
      '/settings/connections',
      'Connections',
      broken > 0 ? `${broken} of ${services.length} fails` : services.length === 0 ? 'none described' : plural(services.length, 'service'),
      { wants: broken > 0 },
    ),
    line(
      '/settings/sign-in',
      'Signing in',
      shut > 0 ? `${plural(shut, 'mailbox', 'mailboxes')} shut` : doors.map(({ service }) => service.name).join(' · ') || 'by password',
      {
        wants: shut > 0,
      },
    ),
    line('/settings/limits', 'Limits and budgets', spentSays(budgets), { wants: budgets.some(isNearlyGone) }),
  ];
}

export async function settingsIndex(world: World): Promise<readonly SettingsLine[]> {
  const figures = await figuresOf(world);
  const { barred, open, ending } = figures;
  return [
    ...ofTheHouse(figures),
    ...ofTheOutside(figures),
    line('/settings/do-not-contact', 'Do not contact', plural(barred.length, 'address', 'addresses')),
    line('/settings/tokens', 'Tokens', ending > 0 ? `${ending} of ${open.length} ends within two weeks` : plural(open.length, 'token'), {
      wants: ending > 0,
      begins: true,
    }),
    line('/settings/data', 'Data', 'take out, copy, erase, how long things are kept'),
    line('/audit', 'Audit', 'who did what, and when'),
  ];
}
