import { fold } from '../../base';
import type { Candidate } from '../find/candidate';
import type { Scene } from '../scene';
import { happenedIn, happenedNear } from '../skills/happened';
import { yes, type Features } from './measure';
import type { Clause } from './words';

/** What must have happened in the year asked for: by the wording, else by the words it goes by. */
export function happeningAsked({ form, question }: Scene): readonly string[] {
  if (form !== 'year' && form !== 'date') return [];
  const asked = happenedIn(fold(question.wording));
  return asked.length > 0 ? asked : happenedIn(fold((question.words ?? []).join(' ; ')));
}

/** Whether what is asked for happened in the candidate's own clause (or sentence), or something else did. */
export function happening(asked: readonly string[], { said, from, to, marks }: Candidate, clause: Clause): Features {
  const [start, end] = [said.tokens[clause.from]?.from ?? 0, said.tokens[clause.to - 1]?.to ?? said.folded.length];
  const [at, behind] = [said.tokens[from]?.from ?? 0, said.tokens[to - 1]?.to ?? 0];
  const told = happenedNear(said.folded.slice(start, end), at - start, behind - start);
  const near = told.length > 0 ? told : happenedNear(said.folded, at, behind);
  const fits = near.some((kind) => asked.includes(kind));
  return {
    datedHappening: fits ? (marks.dateline ?? 0) : 0,
    happened: yes(fits),
    happenedElse: yes(near.length > 0 && !fits),
    happenedHere: yes(told.length > 0 && fits),
  };
}

const LAST_ASKED =
  /\b(?:last|latest|newest|most recent|zuletzt|letzte[nrs]?|neueste[nrs]?|laatste|nieuwste|ultim[oa]|mas reciente|dernier\w*|plus recent\w*)\b/;
const FIRST_ASKED =
  /\b(?:found\w*|established|first|begin|began|start\w*|since|open\w*|gegrundet|grundung|seit|opgericht|sinds|fundad\w*|desde|fonde\w*|depuis|oldest)\b/;

/** Of the years near the words asked for: the latest and the earliest, where the question asks for one of them. */
export function extremes(scene: Scene): ReadonlyMap<Candidate, Features> {
  const out = new Map<Candidate, Features>();
  if (scene.form !== 'year' && scene.form !== 'date') return out;
  const wording = fold(scene.question.wording);
  const near = scene.candidates.filter((candidate) => (scene.met.get(candidate.said)?.here.length ?? 0) > 0);
  const values = near.map((candidate) => String(candidate.value)).sort();
  const last = LAST_ASKED.test(wording);
  const first = !last && FIRST_ASKED.test(wording);
  for (const candidate of near) {
    const value = String(candidate.value);
    out.set(candidate, {
      latestAsked: yes(last && value === values.at(-1)),
      laterAsked: yes(last && value !== values.at(-1)),
      earliestAsked: yes(first && value === values[0]),
      notEarliestAsked: yes(first && value !== values[0]),
    });
  }
  return out;
}
