/** Stages of a pipeline while they are changed: which were there before, and where the deals of those that are gone go. */
export type StageMoves = Readonly<Record<string, { readonly to: string; readonly renamed: boolean }>>;

export interface StageDraft {
  /** what it was called when the page was opened; null: new */
  readonly was: string | null;
  readonly name: string;
}

/** The drafts of a list of stages that was changed elsewhere (undone, had back): what has the same name is the same. */
export const draftsOf = (stages: readonly string[], before: readonly string[]): readonly StageDraft[] =>
  stages.map((name) => ({ was: before.includes(name) ? name : null, name }));

/** Stages that are gone, with how many deals stand there. */
export function goneStages(
  drafts: readonly StageDraft[],
  before: readonly string[],
  deals: Readonly<Record<string, number>>,
): readonly { readonly stage: string; readonly deals: number }[] {
  return before
    .filter((stage) => !drafts.some((draft) => draft.was === stage))
    .flatMap((stage) => ((deals[stage] ?? 0) > 0 ? [{ stage, deals: deals[stage] ?? 0 }] : []));
}

/** What is told with the new stages: names that changed, and where the deals of the others go. */
export function movesOf(drafts: readonly StageDraft[], targets: Readonly<Record<string, string>>): StageMoves {
  const moves: Record<string, { to: string; renamed: boolean }> = {};
  for (const { was, name } of drafts) if (was !== null && was !== name) moves[was] = { to: name, renamed: true };
  for (const [from, to] of Object.entries(targets)) if (to !== '') moves[from] ??= { to, renamed: false };
  return moves;
}
