/** A flow that comes in from a file: what is chosen for each name, and what the flow would then be here. */
import { settleBundle, type Bundle, type Choice, type Match } from '../../../core/flow/bundle';
import { checkFlow, libraryParts, type Library, type LibraryItem } from '../../../core/flow/check';
import { parseFlow, printFlow } from '../../../core/flow/syntax';

export interface Arriving {
  readonly bundle: Bundle;
  readonly matches: readonly Match[];
}

/** The ways a name can be settled, as they are offered: the value tells the choices apart. */
export interface Offer {
  readonly value: string;
  readonly label: string;
  readonly choice: Choice;
}

export function offersFor(match: Match): readonly Offer[] {
  // A field is what it is called: another cannot stand in for it.
  const others = match.kind === 'field' ? [] : match.here.filter((name) => name !== match.name);
  return [
    ...(match.here.includes(match.name)
      ? [{ value: `use ${match.name}`, label: 'the one here', choice: { does: 'use', name: match.name } as const }]
      : []),
    ...(match.carried && match.state !== 'same' && (match.kind !== 'field' || match.state === 'missing')
      ? [
          {
            value: `bring ${match.free}`,
            label: match.free === match.name ? 'make it from the file' : `make it from the file as “${match.free}”`,
            choice: { does: 'bring', name: match.free } as const,
          },
        ]
      : []),
    ...others.map((name): Offer => ({ value: `use ${name}`, label: `“${name}”, which is here`, choice: { does: 'use', name } })),
    ...(match.state === 'missing' && !match.carried
      ? [{ value: 'leave', label: 'leave it open: the checker will point at it', choice: { does: 'leave' } as const }]
      : []),
  ];
}

export const valueOf = (choice: Choice): string => (choice.does === 'leave' ? 'leave' : `${choice.does} ${choice.name}`);

/** What a match needs from a person: nothing, a look, or a choice. */
export const needOf = (match: Match, choice: Choice): 'nothing' | 'look' | 'choice' =>
  choice.does === 'leave' ? 'choice' : match.state === 'differs' ? 'look' : 'nothing';

export interface Outlook {
  readonly text: string;
  readonly make: readonly LibraryItem[];
  readonly errors: readonly string[];
  readonly problems: Readonly<Record<string, string>>;
}

/** The flow as it would stand here, with what would be made for it and what the checker would say. */
export function outlook({ bundle }: Arriving, library: Library, choices: Readonly<Record<string, Choice>>): Outlook {
  const settled = settleBundle(bundle, library, choices);
  if (!settled.ok)
    return {
      text: bundle.text,
      make: [],
      errors: [],
      problems: Object.fromEntries(settled.problems.map((problem) => [problem.key, problem.message])),
    };
  const parsed = parseFlow(settled.text);
  const errors = checkFlow(parsed, withItems(library, settled.make)).filter((finding) => finding.severity === 'error');
  return { text: printFlow(parsed.tree), make: settled.make, errors: errors.map((finding) => finding.message), problems: {} };
}

function withItems(library: Library, items: readonly LibraryItem[]): Library {
  const more = libraryParts(items);
  return {
    ...library,
    scorecards: [...library.scorecards, ...more.scorecards],
    templates: [...library.templates, ...more.templates],
    plans: [...library.plans, ...more.plans],
    chains: [...library.chains, ...more.chains],
    pipelines: [...library.pipelines, ...more.pipelines],
    intakes: [...library.intakes, ...more.intakes],
    fields: [...library.fields, ...more.fields],
  };
}
