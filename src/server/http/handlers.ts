import type { z } from 'zod';
import type { Answer, OPERATIONS, OperationId } from '../../api';
import type { UserRow } from '../access/store/access';
import { csvOf } from '../platform/csv';
import { erasePerson, erasurePreview } from '../workspace/erase';
import { keepFor, keepingView } from '../workspace/keeping';
import { copyOfPerson, takeOut } from '../workspace/take-out';
import { answerBook, answeredLately } from '../messages/answer-book';
import * as bundles from '../flows/bundles';
import * as control from '../trips/control';
import { wordingsTried } from '../messages/wordings-tried';
import { beginExample, examples, removeExample } from '../workspace/example';
import { beginningsOf } from '../workspace/open-api';
import * as directory from '../intake/directory';
import * as barred from '../messages/do-not-contact';
import * as dossiers from '../research/dossiers';
import * as flows from '../flows/flows';
import * as forms from '../intake/forms';
import { previewImport } from '../intake/import-preview';
import * as imports from '../intake/imports';
import { rail } from '../desk/rail';
import { moveClock, readClock } from '../trips/clock';
import * as watched from '../intake/watched';
import * as fields from '../records/change-fields';
import * as openings from '../intake/openings';
import * as things from '../flows/things';
import { sendToMe } from '../flows/send-to-me';
import { tryThing } from '../flows/try-things';
import * as hooks from '../intake/webhook-intakes';
import { connectWebhook } from '../workspace/webhooks';
import { undoMerge } from '../records/merge';
import * as overview from '../desk/overview';
import { letThrough } from '../trips/screening';
import { researchSettings, saveResearchSettings } from '../research/research-settings';
import { recheckFact } from '../research/recheck';
import { changeRecord } from '../records/by-hand';
import * as records from '../records/records';
import * as signIn from '../access/sign-in-services';
import { budgetsView, keepBudget, keepHands } from '../workspace/budgets';
import * as providers from '../workspace/providers';
import { handOver, holderOf } from '../messages/holders';
import * as corrections from '../messages/corrections';
import * as holding from '../messages/holding';
import * as replies from '../messages/replies';
import { takeInNamed } from '../messages/named';
import * as releases from '../flows/releases';
import * as reviews from '../desk/reviews';
import * as stuck from '../trips/stuck';
import { suggested } from '../research/specimens';
import { auditFile, auditPage } from '../access/audit';
import * as aside from '../intake/set-aside';
import * as teach from '../research/teach';
import * as telling from '../desk/telling';
import * as tasks from '../messages/tasks';
import * as tell from '../trips/tell';
import * as boxes from '../messages/mailboxes';
import { dropSigningKey, makeSigningKey } from '../messages/mail-domain';
import { letMailboxSend } from '../messages/mailbox-rest';
import * as here from '../access/people-here';
import * as factor from '../access/second-factor';
import * as teams from '../workspace/teams';
import * as tokens from '../access/tokens';
import { firstDay } from '../workspace/first-day';
import { fillFirstDay, readFill } from '../workspace/first-day-fill';
import { keepWorkspace } from '../workspace/workspace-settings';
import { found, Refusal, workspace, type Actor, type World } from '../platform/world';

type Shape = typeof OPERATIONS;
type In<O, K extends string> = O extends Record<K, infer S extends z.ZodType> ? z.output<S> : undefined;
export interface Call<Id extends OperationId> {
  readonly world: World;
  readonly user: UserRow;
  readonly actor: Actor;
  /** how the caller came in: values sent by a program are marked as such */
  readonly source: 'hand' | 'api';
  readonly params: Readonly<Record<string, string>>;
  readonly query: In<Shape[Id], 'query'>;
  readonly body: In<Shape[Id], 'body'>;
  readonly file: Uint8Array;
  /** where a list lies that was sent */
  readonly path: string;
}

const ok = { ok: true } as const;

/** What only somebody signed in may do for themselves: a token is no proof that they are there. */
function byHand({ user, source }: Pick<Call<OperationId>, 'user' | 'source'>) {
  if (source !== 'hand') throw new Refusal('conflict', 'a second factor is set up and changed on “My account”, not by a program');
  return { userId: user.id, name: user.name };
}

/** One use case behind each operation. */
export const HANDLERS: { readonly [Id in OperationId]: (call: Call<Id>) => Promise<Answer<Id>> } = {
  uploadList: async ({ world, actor, query, path }) =>
    previewImport(world, await imports.lookAtFile(world, actor, { name: query.name, path, flowId: query.flow ?? null }), {}),
  listImports: async ({ world }) => ({ items: await imports.imports(world) }),
  importStatus: ({ world, params }) => imports.importStatus(world, params.id ?? ''),
  previewImport: async ({ world, params, body }) => {
    if (body.part !== undefined) await imports.choosePart(world, params.id ?? '', body.part);
    return previewImport(world, params.id ?? '', body);
  },
  startImport: ({ world, actor, params, body }) => imports.startImport(world, actor, params.id ?? '', body),
  refusedRows: async ({ world, params }) => {
    const { name, headings, rows } = await imports.refusedRows(world, params.id ?? '');
    return { name, type: 'text/csv; charset=utf-8', content: csvOf([headings, ...rows]) };
  },

  listPeople: ({ world, query }) => records.people(world, query),
  createPerson: ({ world, actor, body, source }) => records.createPerson(world, actor, { ...body, source }),
  getPerson: ({ world, params }) => records.personPage(world, params.id ?? ''),
  changePerson: async ({ world, actor, params, body, source }) => {
    await changeRecord(world, actor, { kind: 'person', id: params.id ?? '', values: body.values, was: body.was, source });
    return (await records.personPage(world, params.id ?? '')).person;
  },
  erasurePreview: ({ world, params }) => erasurePreview(world, params.id ?? ''),
  erasePerson: ({ world, actor, params, body }) => erasePerson(world, actor, params.id ?? '', body.name),
  copyOfPerson: ({ world, actor, params }) => copyOfPerson(world, actor, params.id ?? ''),
  getKeeping: ({ world }) => keepingView(world),
  keepFor: ({ world, actor, body }) => keepFor(world, actor, body),
  takeOut: ({ world, actor }) => takeOut(world, actor),
  noteOnPerson: async ({ world, actor, params, body }) => {
    await records.personPage(world, params.id ?? '');
    await records.addNote(world, actor, 'person', params.id ?? '', body.text);
    return ok;
  },
  listWatched: async ({ world }) => ({ items: await watched.watchedDoors(world) }),
  createWatched: ({ world, actor, body }) => watched.createWatched(world, actor, body),
  getWatched: ({ world, params }) => watched.watchedDoor(world, params.id ?? ''),
  saveWatched: ({ world, actor, params, body }) => watched.saveWatched(world, actor, params.id ?? '', body),
  lookAtWatched: ({ world, params }) => watched.lookNow(world, params.id ?? ''),
  previewWatched: async ({ world, actor, body }) => ({ items: await watched.previewWatched(world, actor, body) }),
  mendArrival: ({ world, params, body }) => watched.mendArrival(world, params.id ?? '', body.raw),
  getResearchSettings: ({ world }) => researchSettings(world),
  saveResearchSettings: ({ world, actor, body }) => saveResearchSettings(world, actor, body),
  tryQuestion: ({ world, params, body }) => teach.tryQuestion(world, params.name ?? '', body),
  keepQuestion: ({ world, actor, params, body }) => teach.keepQuestion(world, actor, params.name ?? '', body),
  undoQuestion: ({ world, actor, params }) => teach.undoQuestion(world, actor, params.name ?? ''),
  listThings: async ({ world, query }) => ({ items: await things.things(world, query.kind) }),
  wordingsTried: ({ world, params }) => wordingsTried(world, params.id ?? ''),
  getThing: ({ world, params }) => things.thing(world, params.id ?? ''),
  makeThing: ({ world, actor, body }) => things.makeThing(world, actor, body),
  keepThing: ({ world, actor, params, body }) => things.keepThing(world, actor, params.id ?? '', body),
  renameThing: ({ world, actor, params, body }) => things.renameThing(world, actor, params.id ?? '', body.name),
  retireThing: ({ world, actor, params, body }) => things.retireThing(world, actor, params.id ?? '', body.retired),
  tryThing: ({ world, body }) => tryThing(world, body),
  neverSaid: async ({ world }) => ({ items: await things.neverSaid(world.db) }),
  keepNeverSaid: async ({ world, actor, body }) => ({ items: await things.keepNeverSaid(world, actor, body.items) }),
  sendToMe: ({ world, user, body }) => sendToMe(world, { userId: user.id, name: user.name }, body),
  listStatements: async ({ world }) => ({ items: await things.statements(world.db) }),
  keepStatements: async ({ world, actor, body }) => ({ items: await things.keepStatements(world, actor, body.items) }),
  listFields: ({ world, query }) => fields.fieldsView(world, query.record),
  makeField: ({ world, actor, body }) => fields.makeField(world, actor, body),
  tryField: ({ world, body }) => fields.tryField(world, body),
  editField: ({ world, actor, body }) => fields.editField(world, actor, body),
  undoField: ({ world, actor, body }) => fields.undoFieldChange(world, actor, body.id),
  draftAnswer: ({ world, actor, params, query }) => replies.draftAnswer(world, actor, params.id ?? '', query),
  sendAnswer: ({ world, actor, params, body }) => replies.sendAnswer(world, actor, params.id ?? '', body),
  getHolder: ({ world, actor, params }) => holderOf(world, actor, params.id ?? ''),
  handOver: async ({ world, actor, params, body }) => {
    await handOver(world, actor, params.id ?? '', body);
    return ok;
  },
  takeBackAnswer: async ({ world, actor, params }) => {
    await holding.takeBackAnswer(world, actor, params.id ?? '');
    return ok;
  },
  sentencesToTeach: async ({ world, params }) => ({ items: await corrections.sentencesToTeach(world, params.id ?? '') }),
  tryCorrection: ({ world, params, body }) => corrections.tryCorrection(world, params.id ?? '', body),
  takeInNamed: ({ world, actor, params }) => takeInNamed(world, actor, params.id ?? ''),
  correctReading: async ({ world, actor, params, body }) => {
    await corrections.correctReading(world, actor, params.id ?? '', body);
    return ok;
  },
  listCorrections: ({ world }) => corrections.corrections(world),
  forgetCorrection: async ({ world, actor, params }) => {
    await corrections.forgetCorrection(world, actor, params.id ?? '');
    return ok;
  },
  holdRules: ({ world }) => holding.holdRules(world),
  tryHoldRules: ({ world, body }) => holding.tryHoldRules(world, body),
  saveHoldRules: ({ world, actor, body }) => holding.saveHoldRules(world, actor, body),
  answerBook: ({ world }) => answerBook(world),
  answeredLately: async ({ world, params }) => ({ items: await answeredLately(world, params.id ?? '') }),
  listSignInServices: ({ world }) => signIn.signInView(world),
  keepSignInService: async ({ world, actor, body }) => {
    await signIn.keepSignInService(world, actor, body);
    return signIn.signInView(world);
  },
  removeSignInService: async ({ world, actor, body }) => {
    await signIn.removeSignInService(world, actor, body.name);
    return signIn.signInView(world);
  },
  signMailboxOut: async ({ world, actor, params }) => {
    await signIn.endGrant(world, actor, params.id ?? '');
    return signIn.signInView(world);
  },
  getBudgets: ({ world }) => budgetsView(world),
  keepBudget: ({ world, actor, body }) => keepBudget(world, actor, body),
  keepHandLimit: ({ world, actor, body }) => keepHands(world, actor, body),
  listProviders: async ({ world }) => ({ items: await providers.providers(world) }),
  keepProvider: async ({ world, actor, body }) => ({ items: await providers.keepProvider(world, actor, body) }),
  removeProvider: async ({ world, actor, body }) => ({ items: await providers.removeProvider(world, actor, body.name) }),
  examples: ({ world }) => examples(world),
  beginExample: ({ world, actor, body }) => beginExample(world, actor, body.name),
  removeExample: ({ world, actor }) => removeExample(world, actor),
  readOpenApi: ({ body }) => Promise.resolve(beginningsOf(body.document)),
  tryProvider: ({ world, body }) => providers.tryProvider(world, body),
  listOpenings: async ({ world }) => ({ items: await openings.openings(world) }),
  createOpening: ({ world, actor, body }) => openings.createOpening(world, actor, body),
  getOpening: ({ world, params }) => openings.opening(world, params.id ?? ''),
  saveOpening: ({ world, actor, params, body }) => openings.saveOpening(world, actor, params.id ?? '', body),
  changeOpening: async ({ world, actor, params, body, source }) => {
    await changeRecord(world, actor, { kind: 'opening', id: params.id ?? '', values: body.values, was: body.was, source });
    return (await openings.opening(world, params.id ?? '')).opening;
  },
  changeApplication: async ({ world, actor, params, body, source }) => {
    const id = params.id ?? '';
    if (body.values) await changeRecord(world, actor, { kind: 'application', id, values: body.values, was: body.was, source });
    return body.stage === undefined ? openings.application(world, id) : openings.changeApplication(world, actor, id, { stage: body.stage });
  },
  listCompanies: ({ world, query }) => records.companies(world, query),
  createCompany: ({ world, actor, body, source }) => records.createCompany(world, actor, { ...body, source }),
  getCompany: ({ world, params }) => records.companyPage(world, params.id ?? ''),
  changeCompany: async ({ world, actor, params, body, source }) => {
    await changeRecord(world, actor, { kind: 'company', id: params.id ?? '', values: body.values, was: body.was, source });
    return (await records.companyPage(world, params.id ?? '')).company;
  },
  listDeals: ({ world, query }) => records.deals(world, query),
  createDeal: ({ world, actor, body, source }) => records.createDeal(world, actor, { ...body, source }),
  getDeal: ({ world, params }) => records.dealPage(world, params.id ?? ''),
  changeDeal: async ({ world, actor, params, body, source }) => {
    const id = params.id ?? '';
    if (body.values) await changeRecord(world, actor, { kind: 'deal', id, values: body.values, was: body.was, source });
    return body.stage === undefined ? (await records.dealPage(world, id)).deal : records.changeDeal(world, id, body.stage);
  },

  listFlows: async ({ world }) => ({ items: await flows.flows(world, await overview.startOfDay(world)) }),
  createFlow: ({ world, actor, body }) => flows.createFlow(world, actor, body.text),
  flowSchema: async () => bundles.treeSchema(),
  flowFile: ({ world, params, query }) => bundles.flowFile(world, params.id ?? '', query.as),
  lookAtFlowFile: ({ world, query, file }) => bundles.lookAtFlowFile(world, { name: query.name, bytes: file }),
  takeInFlow: ({ world, actor, body }) => bundles.takeInFlow(world, actor, body),
  checkFlow: async ({ world, body }) => ({ findings: await flows.checkText(world, body.text) }),
  getFlow: ({ world, params }) => flows.flow(world, params.id ?? ''),
  saveDraft: ({ world, actor, params, body }) => flows.saveDraft(world, actor, params.id ?? '', body),
  releaseFlow: ({ world, actor, params, body }) => releases.release(world, actor, params.id ?? '', body),
  getCameBefore: async ({ world, params }) => ({ cameBefore: await releases.whoCameBefore(world, params.id ?? '') }),
  forecastDraft: ({ world, params, query }) => releases.forecastDraft(world, params.id ?? '', query),
  whatWouldChange: ({ world, params, query }) => releases.whatWouldChange(world, params.id ?? '', query.last),
  listVersions: async ({ world, params }) => ({ items: await releases.history(world, params.id ?? '') }),
  returnToVersion: ({ world, actor, params, body }) => releases.returnTo(world, actor, params.id ?? '', body.versionId),
  restFlow: ({ world, actor, params, body }) => control.pauseFlow(world, actor, params.id ?? '', body.rest),
  endFlowTrips: ({ world, actor, params }) => control.endAll(world, actor, params.id ?? ''),
  moveFlowTrips: ({ world, actor, params }) => control.moveTrips(world, actor, params.id ?? ''),
  letReleaseGoOn: ({ world, actor, params }) => control.goOn(world, actor, params.id ?? ''),
  startFlow: ({ world, actor, params, body }) => flows.startOn(world, actor, params.id ?? '', body.recordIds),
  suggestSpecimens: async ({ world, params, query }) => ({ items: await suggested(world, params.id ?? '', query) }),
  startTrial: async ({ world, actor, params, body }) => ({ trialId: await flows.startTrial(world, actor, params.id ?? '', body) }),
  getTrial: async ({ world, params }) => found(await flows.trial(world, params.id ?? '', params.trialId ?? ''), 'this trial'),
  ribbon: async ({ world, params, query }) => ({ lines: await flows.ribbon(world, params.id ?? '', query.since) }),

  listTrips: ({ world, query }) => overview.trips(world, { ...query, flowId: query.flow }),
  getTrip: ({ world, params }) => overview.trip(world, params.id ?? ''),
  letThrough: ({ world, actor, params }) => letThrough(world, actor, params.id ?? ''),
  chooseTrips: async ({ world, actor, body }) => ({ chosen: await stuck.chooseStuck(world, actor, body) }),

  listReviews: async ({ world, actor }) => ({ items: (await reviews.desk(world, actor)).reviews }),
  decideReview: async ({ world, actor, params, body }) => {
    await reviews.decideReview(world, actor, params.id ?? '', body);
    return ok;
  },
  listPairs: async ({ world }) => ({ items: (await overview.pairs(world)).open }),
  decidePair: async ({ world, actor, params, body }) => {
    await reviews.decidePair(world, actor, params.id ?? '', body.does);
    return ok;
  },
  undoMerge: async ({ world, actor, params }) => {
    const id = Number(params.id);
    if (!Number.isInteger(id)) throw new Refusal('not found', 'this merge does not exist');
    await undoMerge(world, id, actor);
    return ok;
  },
  getTelling: ({ world, actor }) => telling.telling(world, actor),
  setTelling: ({ world, actor, body }) => telling.setTelling(world, actor, body),
  listTasks: async ({ world, actor }) => ({ items: (await reviews.desk(world, actor)).tasks }),
  endTask: async ({ world, actor, params, body }) => {
    await tasks.endTask(world, actor, params.id ?? '', body);
    return ok;
  },
  taskLetter: ({ world, params }) => tasks.taskLetter(world, params.id ?? ''),
  settleDoubt: async ({ world, actor, params, body }) => {
    await reviews.settleDoubt(world, actor, params.id ?? '', body.left);
    return ok;
  },
  listMessages: ({ world, query }) => overview.messages(world, query),
  handleReply: async ({ world, actor, params }) => {
    await holding.handleReply(world, actor, params.id ?? '');
    return ok;
  },

  listNotices: async ({ world, actor }) => ({ items: await tell.notices(world, actor) }),
  putNoticeAside: async ({ world, actor, params }) => {
    await tell.putNoticeAside(world, actor, params.id ?? '');
    return ok;
  },
  connectWebhook: async ({ world, actor, params, body }) => {
    await connectWebhook(world, actor, { name: params.name ?? '', ...body });
    return ok;
  },

  listForms: async ({ world }) => ({ items: await forms.forms(world) }),
  createForm: ({ world, actor, body }) => forms.createForm(world, actor, body),
  getForm: ({ world, params }) => forms.form(world, params.id ?? ''),
  saveForm: ({ world, actor, params, body }) => forms.saveForm(world, actor, params.id ?? '', body),
  listEntries: async ({ world, params }) => ({ items: await forms.entries(world, params.id ?? '') }),
  listWebhookIntakes: async ({ world }) => ({ items: await hooks.webhookIntakes(world) }),
  createWebhookIntake: ({ world, actor, body }) => hooks.createWebhookIntake(world, actor, body.name),
  getWebhookIntake: ({ world, params }) => hooks.webhookIntake(world, params.id ?? ''),
  saveWebhookIntake: ({ world, params, body }) => hooks.saveWebhookIntake(world, params.id ?? '', body),
  tryWebhookIntake: ({ world, params, body }) => hooks.tryWebhook(world, params.id ?? '', body),
  bringWebhookAgain: ({ world, params }) => hooks.bringAgain(world, params.id ?? ''),
  mendPosted: ({ world, params, body }) => hooks.mendPosted(world, params.id ?? '', body.raw),
  lookInDirectory: ({ world, body }) => directory.lookInDirectory(world, body),
  takeFromDirectory: ({ world, actor, body }) => directory.takeFromDirectory(world, actor, body),
  mendEntry: ({ world, params, body }) => forms.mendEntry(world, params.id ?? '', body.raw),
  entryFile: ({ world, actor, params }) => forms.entryFile(world, actor, params.id ?? ''),

  askDossier: ({ world, actor, body }) => dossiers.askDossier(world, actor, body),
  recheckFact: ({ world, params, body }) => recheckFact(world, params.id ?? '', body.field),
  getDossier: ({ world, params }) => dossiers.dossier(world, params.id ?? ''),
  dossierFile: ({ world, params, query }) => dossiers.dossierFile(world, params.id ?? '', query.as),
  sendDossier: async ({ world, actor, params, body }) => {
    await dossiers.sendDossier(world, actor, params.id ?? '', body);
    return ok;
  },

  listSetAside: async ({ world }) => ({ items: await aside.listOfSetAside(world) }),
  getSetAside: ({ world, params }) => aside.openSetAside(world, params.id ?? ''),
  setAsideFile: ({ world, params }) => aside.rawOfSetAside(world, params.id ?? ''),
  bringSetAside: ({ world, actor, params, body }) => aside.bringSetAside(world, actor, params.id ?? '', body.text),
  dropSetAside: async ({ world, actor, params, body }) => {
    await aside.dropSetAside(world, actor, params.id ?? '', body.drop);
    return ok;
  },
  listDoNotContact: async ({ world }) => ({ items: await barred.doNotContactList(world) }),
  barAddress: async ({ world, actor, body }) => ({ items: await barred.barAddress(world, actor, body) }),
  barList: ({ world, actor, query, path }) => barred.barList(world, actor, { name: query.name, path }),
  barredFile: ({ world }) => barred.barredFile(world),
  liftAddress: async ({ world, actor, body }) => ({ items: await barred.liftAddress(world, actor, body.email) }),
  listAudit: ({ world, query }) => auditPage(world, query),
  auditFile: ({ world, query }) => auditFile(world, query),

  getWorkspace: ({ world }) => workspace(world.db),
  keepWorkspace: ({ world, actor, body }) => keepWorkspace(world, actor, body),
  getFirstDay: ({ world }) => firstDay(world),
  readFirstDay: ({ world, body }) => readFill(world, body),
  fillFirstDay: ({ world, actor, body }) => fillFirstDay(world, actor, body),
  listPeopleHere: ({ world }) => here.peopleView(world),
  invite: ({ world, actor, body }) => here.invite(world, actor, body),
  withdrawInvite: ({ world, actor, params }) => here.withdrawInvite(world, actor, params.id ?? ''),
  changePersonHere: ({ world, actor, params, body }) => here.changePersonHere(world, actor, params.id ?? '', body),
  letGo: ({ world, actor, params, body }) => here.letGo(world, actor, params.id ?? '', body),
  letBack: ({ world, actor, params }) => here.letBack(world, actor, params.id ?? ''),
  getSecondFactor: ({ world, user }) => factor.factorView(world, { userId: user.id, name: user.name }),
  beginSecondFactor: (call) => factor.beginSecondFactor(call.world, byHand(call)),
  confirmSecondFactor: (call) => factor.confirmSecondFactor(call.world, byHand(call), call.body.code),
  renewRecoveryCodes: (call) => factor.renewRecoveryCodes(call.world, byHand(call), call.body.code),
  endSecondFactor: (call) => factor.endSecondFactor(call.world, byHand(call), call.body.code),
  endFactorOf: async (call) => {
    await factor.endFactorOf(call.world, byHand(call), call.params.id ?? '');
    return ok;
  },
  requireSecondFactor: (call) => factor.requireSecondFactor(call.world, byHand(call), call.body.required),
  listTeams: async ({ world }) => ({ items: await teams.teams(world) }),
  keepTeam: async ({ world, actor, params, body }) => ({ items: await teams.keepTeam(world, actor, params.name ?? '', body) }),
  dropTeam: async ({ world, actor, params }) => ({ items: await teams.dropTeam(world, actor, params.name ?? '') }),
  listMailboxes: async ({ world }) => ({ items: await boxes.mailboxViews(world) }),
  keepMailbox: async ({ world, actor, params, body }) => ({ items: await boxes.keepMailbox(world, actor, params.name ?? '', body) }),
  checkMailbox: async ({ world, actor, params }) => ({ items: await boxes.checkMailbox(world, actor, params.name ?? '') }),
  makeSigningKey: async ({ world, actor, params }) => {
    await makeSigningKey(world, actor, params.name ?? '');
    return { items: await boxes.mailboxViews(world) };
  },
  dropSigningKey: async ({ world, actor, params }) => {
    await dropSigningKey(world, actor, params.name ?? '');
    return { items: await boxes.mailboxViews(world) };
  },
  letMailboxSend: async ({ world, actor, params }) => ({ items: await letMailboxSend(world, actor, params.name ?? '') }),
  listTokens: async ({ world }) => ({ items: await tokens.tokens(world) }),
  makeToken: ({ world, actor, body }) => tokens.newToken(world, actor, body),
  endToken: async ({ world, actor, params }) => ({ items: await tokens.withdrawToken(world, actor, params.id ?? '') }),

  readRail: ({ world, user, actor }) => rail(world, actor, user.role),
  readClock: ({ world }) => readClock(world),
  moveClock: ({ world, body }) => moveClock(world, body.byMs),
};
