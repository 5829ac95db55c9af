'use client';
import { Research, type ResearchView } from './Research';
import { SettingsFrame, type IndexLine } from './SettingsFrame';

interface Props {
  readonly index: readonly IndexLine[];
  readonly research: ResearchView;
  readonly mayChange: boolean;
}

/** What is asked of every company, and where it is looked for. */
export function Reading({ index, research, mayChange }: Props) {
  return (
    <SettingsFrame
      index={index}
      title="Settings"
      tags={<span className="quiet">questions and reading</span>}
      said={null}
      onClose={() => undefined}
    >
      <section className="col paper grow" tabIndex={0} aria-label="Questions and reading">
        <Research key={JSON.stringify(research)} research={research} mayChange={mayChange} />
      </section>
    </SettingsFrame>
  );
}
