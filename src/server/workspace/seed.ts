import { z } from 'zod';
import { stableId, type Instant } from '../../core/base';
import type { FactDraft } from '../../core/facts';
import { ownFieldSchema, readTyped, type Catalogue, type FactValue } from '../../core/fields';
import { libraryItemSchema } from '../../core/flow/check';
import { openingSchema } from '../../core/hiring';
import { providerSchema } from '../../core/lookup';
import { formSchema, watchedSchema } from '../../core/intake';
import { companyKeys, normalisePhone, personKeys, reachOf } from '../../core/match';
import { insertUser } from '../access/store/access';
import { insertFacts } from '../records/store/facts';
import { putField } from '../records/store/fields';
import { putTeam } from '../flows/store/flows';
import { putThing } from '../flows/store/things';
import { putMailbox } from '../messages/store/mailboxes';
import { insertCompanies, insertPeople, type NewCompany, type NewPerson } from '../records/store/records';
import { insertDeal } from '../records/store/deals';
import { getSetting, putSetting } from '../platform/store/settings';
import { loadCatalogue } from '../records/fields';
import { loadLibrary } from '../flows/library';
import { makeToken } from '../access/access';
import { LOOKED_AT } from '../messages/hold-decisions';
import { saveHoldRules } from '../messages/holding';
import { connectWebhook } from './webhooks';
import { createFlow } from '../flows/flows';
import { recordFacts } from '../records/facts';
import { createForm } from '../intake/forms';
import { changeRecord } from '../records/by-hand';
import { createOpening } from '../intake/openings';
import { keepProvider } from './providers';
import { putService } from '../access/store/sign-in';
import { monthBudgetsSchema, putMonthBudgets } from '../trips/requests/month-budgets';
import { seal } from '../platform/seal';
import { signInServiceSchema } from '../../core/sign-in';
import { makeThing } from '../flows/things';
import { standingQuestionsSchema } from '../research/questions';
import { release } from '../flows/releases';
import { sourceSettingsSchema } from '../trips/requests/sources';
import { createWatched } from '../intake/watched';
import { agreedAnswerSchema, statementSchema } from '../../core/answers';
import { rampUpSchema } from '../../core/calendar';
import type { Tx } from '../db';
import type { Actor, World } from '../platform/world';

/** A workspace as data: people, teams, mailboxes, named things. */
export const workspaceSeedSchema = z.object({
  workspace: z.object({ name: z.string(), zone: z.string(), daysOff: z.array(z.string()), defaultCountry: z.string() }),
  startsAt: z.iso.datetime(),
  password: z.string().min(8),
  users: z.array(
    z.object({ email: z.email(), name: z.string(), role: z.enum(['owner', 'builder', 'rep', 'reviewer', 'viewer']), title: z.string() }),
  ),
  teams: z.array(z.object({ name: z.string(), members: z.array(z.email()) })),
  mailboxes: z.array(
    z.object({
      name: z.string(),
      address: z.email(),
      displayName: z.string(),
      zone: z.string(),
      dailyLimit: z.number().int(),
      personGapDays: z.number().int(),
      minutesApart: z.number().int().default(2),
      rampUp: rampUpSchema.nullable().default(null),
      signature: z.string().default(''),
      /** when answers wait, a rule a line */
      holdRules: z.array(z.string()).default([]),
    }),
  ),
  library: z.array(libraryItemSchema),
  /** what the business says of itself, with who stands behind it */
  statements: z.array(statementSchema).default([]),
  neverSaid: z.array(z.string()).default([]),
  /** what was agreed to say to objections and questions */
  answers: z.array(agreedAnswerSchema).default([]),
  /** lookup services described by data */
  providers: z.array(z.object({ provider: providerSchema, secret: z.string().default('') })).default([]),
  /** services that people come in by and mailboxes open by */
  signInServices: z.array(z.object({ service: signInServiceSchema, secret: z.string() })).default([]),
  /** what may be spent in a month */
  monthBudgets: monthBudgetsSchema.optional(),
  webhooks: z.array(z.object({ name: z.string(), url: z.url(), secret: z.string() })).default([]),
  sources: sourceSettingsSchema.default([]),
  fields: z.array(ownFieldSchema).default([]),
  questions: standingQuestionsSchema.default([]),
  forms: z.array(z.object({ name: z.string(), form: formSchema })).default([]),
  openings: z
    .array(
      openingSchema.extend({
        name: z.string().min(1),
        values: z.record(z.string(), z.union([z.string(), z.number(), z.boolean()])).default({}),
      }),
    )
    .default([]),
  watched: z
    .array(z.object({ name: z.string(), settings: watchedSchema, password: z.string(), isOn: z.boolean().default(true) }))
    .default([]),
  /** a file of entries that were sent through the forms, with the files beside it */
  entries: z.string().optional(),
  flows: z.array(z.string()),
  /** what it shows as an example within another workspace, and the flow that shows it */
  example: z.object({ about: z.string(), flow: z.string() }).optional(),
  crm: z.object({ companies: z.string(), people: z.string(), deals: z.string().optional(), confirmed: z.string().optional() }).optional(),
});
export type WorkspaceSeed = z.infer<typeof workspaceSeedSchema>;
/** What was sent through forms before: answers by question, and files by question as paths. */
export const seedEntriesSchema = z.array(
  z.object({ form: z.string(), raw: z.record(z.string(), z.string()), files: z.record(z.string(), z.string()).default({}) }),
);
export type CrmRow = Readonly<Record<string, string>>;

/** Whether the workspace was filled before. */
export async function isSeeded(world: World): Promise<boolean> {
  return (await getSetting(world.db, 'seeded')) === true;
}

/** Fills an empty workspace: settings, people, named things, CRM records with their facts, released flows. Returns an API token of the builder. */
export async function seedWorkspace(
  world: World,
  seed: WorkspaceSeed,
  texts: {
    readonly flows: readonly string[];
    readonly companies: readonly CrmRow[];
    readonly people: readonly CrmRow[];
    readonly deals?: readonly CrmRow[];
    readonly confirmed?: readonly CrmRow[];
  },
): Promise<string> {
  const startsAt = Date.parse(seed.startsAt);
  await putSetting(world.db, 'workspace', seed.workspace);
  if (world.isDemo) await putSetting(world.db, 'demo password', seed.password);
  if (world.isDemo) await putSetting(world.db, 'clock offset', startsAt - (await world.clock.now()));
  const passwordHash = await world.passwords.hash(seed.password);
  const idOf = (email: string): string => stableId('user', email);
  for (const user of seed.users) await insertUser(world.db, { ...user, id: idOf(user.email), passwordHash });
  for (const team of seed.teams)
    await putTeam(
      world.db,
      team.name,
      team.members.map((email) => ({ id: idOf(email), weight: 1 })),
    );
  for (const { holdRules: _, ...box } of seed.mailboxes) await putMailbox(world.db, box);
  for (const entry of seed.library)
    await putThing(
      world.db,
      { ...entry, id: stableId('thing', entry.kind, entry.name) },
      { says: 'as it came', userId: null, at: startsAt },
    );
  if (seed.statements.length > 0) await putSetting(world.db, 'statements', seed.statements);
  if (seed.neverSaid.length > 0) await putSetting(world.db, 'never said', seed.neverSaid);
  if (seed.sources.length > 0) await putSetting(world.db, 'sources', seed.sources);
  for (const field of seed.fields) await putField(world.db, field);
  if (seed.questions.length > 0) await putSetting(world.db, 'questions', seed.questions);
  const builder = seed.users.find((user) => user.role === 'builder') ?? seed.users[0];
  const actor = builder ? { userId: idOf(builder.email), name: builder.name } : { userId: null, name: 'Millrace' };
  await seedConnections(world, actor, seed, startsAt);
  await seedCrm(world, texts, seed.workspace.defaultCountry);
  await seedConfirmed(world, texts.confirmed ?? [], startsAt);
  await seedDeals(world, texts.deals ?? [], texts.people, startsAt);
  for (const { name, holdRules } of seed.mailboxes)
    if (holdRules.length > 0)
      await saveHoldRules(world, actor, { mailbox: name, rules: holdRules.join('\n'), lookedAt: LOOKED_AT, seen: 0 });
  for (const body of seed.answers) await makeThing(world, actor, { kind: 'answer', name: body.name, body });
  for (const { values, ...entry } of seed.openings) {
    const { id } = await createOpening(world, actor, entry);
    await changeRecord(world, actor, { kind: 'opening', id, values, source: 'hand' });
  }
  for (const entry of seed.forms) await createForm(world, actor, entry);
  for (const entry of seed.watched) await createWatched(world, actor, entry);
  for (const text of texts.flows) {
    const made = await createFlow(world, actor, text);
    await release(world, actor, made.id);
  }
  await putSetting(world.db, 'seeded', true);
  return builder ? makeToken(world, idOf(builder.email), 'demo', 365) : '';
}

const personId = (people: readonly CrmRow[], row: CrmRow): string | undefined => {
  const at = people.findIndex((person) => person.company === row.company && person.name === row.person);
  return at < 0 ? undefined : stableId('crm person', String(at), row.person ?? '');
};

/** What companies told on the phone, so many days ago: a key to what is read on their sites. */
async function seedConfirmed(world: World, rows: readonly CrmRow[], startsAt: number): Promise<void> {
  const fields = await loadCatalogue(world.db);
  const facts = rows.map((row): FactDraft => {
    const key = row.field ?? '';
    const field = fields.of('company', key);
    const reading = field && readTyped(field, row.value ?? '');
    if (!field || !reading?.ok) throw new Error(`confirmed: “${row.value ?? ''}” is no value of ${key}`);
    return {
      record: { kind: 'company', id: stableId('crm company', row.key ?? '') },
      field: key,
      value: reading.value,
      source: 'confirmed',
      sourceRef: row.by ?? '',
      confidence: 1,
      observedAt: startsAt - Number(row.days ?? 0) * 86_400_000,
    };
  });
  await world.db.begin((tx) =>
    recordFacts(
      tx,
      facts.map((fact) => ({ fact, meta: { tripId: null, mark: null, userId: null } })),
    ),
  );
}

/** Open deals of an older CRM, each as many days at its stage as its row says. */
async function seedDeals(world: World, deals: readonly CrmRow[], people: readonly CrmRow[], startsAt: number): Promise<void> {
  const pipeline = (await loadLibrary(world.db)).pipelines[0]?.name ?? '';
  const facts: FactDraft[] = [];
  for (const row of deals) {
    const since = (world.isDemo ? startsAt : await world.clock.now()) - Number(row.days) * 86_400_000;
    const [id, title, amount] = [stableId('crm deal', row.title ?? ''), row.title ?? '', Number(row.amount)];
    for (const [field, value] of Object.entries({ title, amount }))
      facts.push({ record: { kind: 'deal', id }, field, value, source: 'crm', sourceRef: 'CRM', confidence: 1, observedAt: since });
    await insertDeal(
      world.db,
      {
        id,
        title,
        pipeline: row.pipeline ?? pipeline,
        stage: row.stage ?? '',
        amount,
        companyId: stableId('crm company', row.company ?? ''),
        personId: personId(people, row) ?? null,
        tripId: null,
      },
      since,
    );
  }
  await world.db.begin((tx) =>
    recordFacts(
      tx,
      facts.map((fact) => ({ fact, meta: { tripId: null, mark: null, userId: null } })),
    ),
  );
}

/** Records as an older CRM would hold them: every value a fact of source `crm`, some months old. */
/** The values of a card that fit its fields; phones in the form that is dialled. */
function valuesOf(fields: Catalogue, kind: 'company' | 'person', row: CrmRow, country: string): Record<string, FactValue> {
  const values: Record<string, FactValue> = {};
  for (const [key, raw] of Object.entries(row)) {
    const field = fields.of(kind, key);
    const reading = field && readTyped(field, raw);
    if (!field || !reading?.ok || reading.value === null) continue;
    values[key] = field.type === 'phone' ? (normalisePhone(String(reading.value), country) ?? reading.value) : reading.value;
  }
  return values;
}

/** `also` is done in one transaction with them. */
export async function seedCrm(
  world: World,
  { companies, people }: { readonly companies: readonly CrmRow[]; readonly people: readonly CrmRow[] },
  defaultCountry: string,
  { sourceRef, prefix } = { sourceRef: 'card from before', prefix: 'crm' },
  also: (tx: Tx, made: { readonly companies: readonly string[]; readonly people: readonly string[] }) => Promise<void> = () =>
    Promise.resolve(),
): Promise<void> {
  const now = await world.clock.now();
  const fields = await loadCatalogue(world.db);
  const newCompanies: NewCompany[] = [];
  const newPeople: NewPerson[] = [];
  const facts: FactDraft[] = [];
  const keep = (kind: 'company' | 'person', id: string, row: CrmRow, at: number, country: string): Record<string, FactValue> => {
    const values = valuesOf(fields, kind, row, country);
    for (const [field, value] of Object.entries(values))
      facts.push({ record: { kind, id }, field, value, source: 'crm', sourceRef, confidence: 0.7, observedAt: at });
    return values;
  };
  const countries = new Map<string, string>();
  for (const [i, row] of companies.entries()) {
    const id = stableId(`${prefix} company`, row.key ?? String(i));
    countries.set(row.key ?? '', row.country ?? defaultCountry);
    const values = keep('company', id, row, now - (200 + i) * 86_400_000, row.country ?? defaultCountry);
    newCompanies.push({
      id,
      values,
      matchKeys: companyKeys({
        name: String(values.name),
        website: values.website === undefined ? null : String(values.website),
        phone: values.phone === undefined ? null : String(values.phone),
      }),
    });
  }
  for (const [i, row] of people.entries()) {
    const id = stableId(`${prefix} person`, String(i), row.name ?? '');
    const values = keep('person', id, row, now - (150 + i) * 86_400_000, countries.get(row.company ?? '') ?? defaultCountry);
    newPeople.push({
      id,
      values,
      companyId: row.company ? stableId(`${prefix} company`, row.company) : null,
      matchKeys: personKeys({ name: String(values.name), ...reachOf(values) }),
    });
  }
  await world.db.begin(async (tx) => {
    await insertCompanies(tx, newCompanies, now - 200 * 86_400_000);
    await insertPeople(tx, newPeople, now - 150 * 86_400_000);
    await insertFacts(
      tx,
      facts.map((fact) => ({ fact, meta: { tripId: null, mark: null, userId: null } })),
    );
    await also(tx, { companies: newCompanies.map(({ id }) => id), people: newPeople.map(({ id }) => id) });
  });
}

/** What stands outside: webhooks, lookup services, services that people and mailboxes sign in by. */
async function seedConnections(world: World, actor: Actor, seed: WorkspaceSeed, at: Instant): Promise<void> {
  for (const hook of seed.webhooks) await connectWebhook(world, actor, hook);
  for (const entry of seed.providers) await keepProvider(world, actor, entry);
  if (seed.monthBudgets) await putMonthBudgets(world.db, seed.monthBudgets);
  // Nobody is asked yet: the outside may come up after its workspace.
  for (const { service, secret } of seed.signInServices)
    await putService(world.db, { name: service.name, body: service, secret: seal(world.secret, secret) }, at);
}
