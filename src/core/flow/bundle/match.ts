import { freeName } from '../../base';
import type { Library, LibraryItem } from '../check';
import { applyEdits } from '../edit';
import { quote } from '../syntax';
import { itemsOf, nameKey, namesUsed, type Bundle, type NameKind, type NameUse } from './bundle';

/** What is done about one name of a bundle. */
export type Choice =
  /** take what is here under this name; everything in the bundle speaks of it then */
  | { readonly does: 'use'; readonly name: string }
  /** make the carried thing here, under this name */
  | { readonly does: 'bring'; readonly name: string }
  /** leave the name as it is: the checker will say that it is missing */
  | { readonly does: 'leave' };

/** One name of a bundle against this workspace. */
export interface Match {
  readonly key: string;
  readonly kind: NameKind;
  readonly name: string;
  /** `same` and `here` need nothing; a `differs` has the same name here with another content; a `missing` is not here */
  readonly state: 'same' | 'here' | 'differs' | 'missing';
  readonly carried: boolean;
  readonly by: readonly string[];
  /** names of this kind that are here */
  readonly here: readonly string[];
  /** of one that differs: where */
  readonly differences: readonly string[];
  /** a name that is free here */
  readonly free: string;
  /** what happens if nobody chooses */
  readonly choice: Choice;
}

const namesHere = (library: Library, use: Pick<NameUse, 'kind' | 'intakeKind'>): readonly string[] => {
  switch (use.kind) {
    case 'team':
      return library.teams;
    case 'connection':
      return library.connections;
    case 'addressee':
      return [...library.people, ...library.teams, ...library.webhooks];
    case 'webhook':
      return library.webhooks;
    case 'opening':
      return library.openings.map((opening) => opening.name);
    case 'intake':
      return library.intakes.filter((intake) => intake.kind === use.intakeKind).map((intake) => intake.name);
    default:
      return itemsOf(library)
        .filter((item) => item.kind === use.kind)
        .map((item) => item.name);
  }
};

/** Every name the bundle speaks of, with what is known of it here. */
export function matchBundle(bundle: Bundle, library: Library): readonly Match[] {
  const ours = new Map(itemsOf(library).map((item) => [nameKey(item), item]));
  const theirs = new Map(bundle.things.map((item) => [nameKey(item), item]));
  return namesUsed(bundle.text, bundle.things).map((use) => {
    const key = nameKey(use);
    const here = namesHere(library, use);
    const carried = theirs.get(key);
    const there = here.includes(use.name) ? ours.get(key) : undefined;
    const differences = carried && there ? differing(there.body, carried.body) : [];
    const state = !here.includes(use.name) ? 'missing' : !carried || !there ? 'here' : differences.length > 0 ? 'differs' : 'same';
    const choice: Choice =
      state !== 'missing' ? { does: 'use', name: use.name } : carried ? { does: 'bring', name: use.name } : { does: 'leave' };
    return {
      key,
      kind: use.kind,
      name: use.name,
      state,
      carried: carried !== undefined,
      by: use.by,
      here,
      differences,
      free: freeName(use.name, here),
      choice,
    };
  });
}

/** Where two values differ: `criteria · open at night · levels 1 · points: 30 here, 25 in the file`. */
function differing(ours: unknown, theirs: unknown, path = ''): readonly string[] {
  if (isTree(ours) && isTree(theirs))
    return [...new Set([...Object.keys(ours), ...Object.keys(theirs)])].flatMap((key) =>
      differing(ours[key], theirs[key], stepInto(path, key, ours)),
    );
  return JSON.stringify(ours) === JSON.stringify(theirs) ? [] : [`${path}: ${shown(ours)} here, ${shown(theirs)} in the file`];
}
/** One of a list goes by what it says of itself, else by its place. */
function stepInto(path: string, key: string, within: Readonly<Record<string, unknown>>): string {
  const one = within[key];
  const says = Array.isArray(within) && isTree(one) ? [one.text, one.name, one.id].find((word) => typeof word === 'string') : undefined;
  if (says !== undefined) return `${path} · ${says}`;
  return path === '' ? key : `${path}${Array.isArray(within) ? ' ' : ' · '}${Array.isArray(within) ? Number(key) + 1 : key}`;
}
const isTree = (value: unknown): value is Readonly<Record<string, unknown>> => typeof value === 'object' && value !== null;
const shown = (value: unknown): string => (value === undefined ? 'nothing' : (JSON.stringify(value) ?? 'nothing'));

export type Settled =
  | { readonly ok: true; readonly text: string; readonly make: readonly LibraryItem[] }
  | { readonly ok: false; readonly problems: readonly { readonly key: string; readonly message: string }[] };

/** The flow's text and the things to make, after the choices; `choices` go by the matches' keys, the rest as proposed. */
export function settleBundle(bundle: Bundle, library: Library, choices: Readonly<Record<string, Choice>>): Settled {
  const matches = matchBundle(bundle, library);
  const chosen = matches.map((match) => ({ match, choice: choices[match.key] ?? match.choice }));
  const problems = [
    ...Object.keys(choices)
      .filter((key) => !matches.some((match) => match.key === key))
      .map((key) => ({ key, message: `the flow does not speak of ${key}` })),
    ...chosen.flatMap(({ match, choice }) => {
      const twice = chosen.some(
        (other) =>
          other.match !== match &&
          other.match.kind === match.kind &&
          other.choice.does === 'bring' &&
          choice.does === 'bring' &&
          other.choice.name === choice.name,
      );
      const message = twice ? `two ${match.kind}s would be named “${match.name}”` : wrongWith(match, choice);
      return message === undefined ? [] : [{ key: match.key, message }];
    }),
  ];
  if (problems.length > 0) return { ok: false, problems };
  const names = new Map(chosen.map(({ match, choice }) => [match.key, choice.does === 'leave' ? match.name : choice.name]));
  const renamed = (kind: NameKind, name: string): string => names.get(nameKey({ kind, name })) ?? name;
  const edits = namesUsed(bundle.text, bundle.things).flatMap((use) =>
    renamed(use.kind, use.name) === use.name
      ? []
      : use.spans.map((span) => ({ from: span.from, to: span.to, insert: quote(renamed(use.kind, use.name)) })),
  );
  const make = bundle.things.flatMap((thing) => {
    const choice = chosen.find(({ match }) => match.key === nameKey(thing))?.choice;
    return choice?.does === 'bring' ? [underName(thing, choice.name, renamed)] : [];
  });
  return { ok: true, text: applyEdits(bundle.text, edits), make };
}

function wrongWith(match: Match, choice: Choice): string | undefined {
  const what = `${match.kind} “${match.name}”`;
  if (match.kind === 'field' && choice.does !== 'leave' && choice.name !== match.name)
    return `${what} keeps its name: flows speak of it everywhere`;
  if (choice.does === 'use' && !match.here.includes(choice.name)) return `${what}: there is no ${match.kind} named “${choice.name}” here`;
  if (choice.does !== 'bring') return undefined;
  if (!match.carried) return `${what} is only named in the file: choose one that is here`;
  if (choice.name.trim() === '') return `${what} needs a name`;
  return match.here.includes(choice.name) ? `${what}: there is one named “${choice.name}” here already` : undefined;
}

/** The thing under its name here; a plan speaks of texts and mailboxes by their names here. */
function underName(thing: LibraryItem, name: string, renamed: (kind: NameKind, name: string) => string): LibraryItem {
  if (thing.kind === 'field') return thing;
  if (thing.kind !== 'plan') return { ...thing, name, body: { ...thing.body, name } } as LibraryItem;
  return {
    kind: 'plan',
    name,
    body: {
      ...thing.body,
      name,
      mailbox: renamed('connection', thing.body.mailbox),
      touches: thing.body.touches.map(({ otherwise, ...touch }) => ({
        ...touch,
        template: renamed('template', touch.template),
        ...(otherwise !== undefined && { otherwise: renamed('template', otherwise) }),
      })),
    },
  };
}
