/** The demo's named things and its flow, for tests of what is written with them. */
import fs from 'node:fs';
import { formSchema, type Form } from '../core/intake';
import { formIntake } from '../server/intake/forms';
import { watchedIntake } from '../server/intake/watched';
import { DEMO_FIELDS } from './fields';
import { libraryParts, librarySchema, type Library } from '../core/flow/check';

interface Workspace {
  readonly library: readonly { readonly kind: string; readonly body: unknown }[];
  readonly teams: readonly { readonly name: string }[];
  readonly users: readonly { readonly name: string }[];
  readonly webhooks: readonly { readonly name: string }[];
  readonly watched: readonly { readonly name: string; readonly settings: { readonly kind: 'mailbox' | 'calendar' } }[];
  readonly openings: readonly { readonly name: string; readonly stages: readonly string[] }[];
  readonly mailboxes: readonly { readonly name: string }[];
  readonly forms: readonly { readonly name: string; readonly form: Form }[];
}
const intakeOf = (name: string, form: Form) => formIntake(name, formSchema.parse(form));
const workspace = JSON.parse(fs.readFileSync('demo/workspace.json', 'utf8')) as Workspace;
export const DEMO_LIBRARY: Library = librarySchema.parse({
  ...libraryParts([
    ...workspace.library,
    ...workspace.forms.map(({ name, form }) => ({ kind: 'intake', body: intakeOf(name, form) })),
    ...workspace.watched.map(({ name, settings }) => ({ kind: 'intake', body: watchedIntake(name, settings.kind) })),
  ]),
  teams: workspace.teams.map((team) => team.name),
  connections: workspace.mailboxes.map((box) => box.name),
  people: workspace.users.map((user) => user.name),
  webhooks: workspace.webhooks.map((hook) => hook.name),
  openings: workspace.openings,
  fields: DEMO_FIELDS.own,
});
export const DEMO_FLOW = fs.readFileSync('demo/flows/trade-fair-visitors.race', 'utf8');
