'use client';
import { Button } from '@mui/material';
import { plural } from '../../../core/base';
import Link from '../../kit/Link';
import { Tag, TopBar } from '../../kit/parts';
import { AsFile } from './AsFile';
import { LiveTag } from './LiveTag';
import { Specimens } from './Specimens';
import type { Bench, WorkbenchProps } from './useWorkbench';

interface Props extends Pick<WorkbenchProps, 'flow' | 'zone' | 'mayEdit' | 'mayRelease'> {
  readonly bench: Bench;
}

/** The flow's name and state, and what can be done with all of it. */
export function WorkbenchBar({ bench, flow, zone, mayEdit, mayRelease }: Props) {
  const { draft, script, people, setPeople, limitMicro, setLimitMicro, errors, tryOut, toRelease } = bench;
  const { others } = bench.drafting;
  const { running } = bench.trialling;
  return (
    <TopBar
      path={<Link href="/flows">Flows</Link>}
      title={script.name}
      tags={
        <>
          <Tag tone="river" title={SAVE_WORDS[draft.save]}>
            draft · {SAVE_WORDS[draft.save]}
          </Tag>
          <LiveTag live={flow.live} zone={zone} />
          <span role="status">
            {draft.theirs ? (
              <Tag tone="river">
                ● {draft.theirs.name} changed {plural(draft.theirs.rows, 'line')} just now
              </Tag>
            ) : others.length > 0 ? (
              <Tag tone="river">● {others.join(', ')} here too</Tag>
            ) : null}
          </span>
        </>
      }
    >
      <AsFile flowId={flow.id} />
      <Specimens
        flowId={flow.id}
        people={people}
        about={script.parsed.tree.about?.text === 'deal' ? 'deal' : 'person'}
        onChange={setPeople}
        limitMicro={limitMicro}
        onLimit={setLimitMicro}
      />
      <Button
        disabled={!mayEdit || running || errors > 0}
        onClick={() => void tryOut()}
        title="Runs the draft on the specimens; nothing is sent and nothing is written on a record"
      >
        {running ? 'Trying …' : 'Try'} <kbd aria-hidden>T</kbd>
      </Button>
      <Button variant="contained" disabled={!mayRelease} onClick={() => void toRelease()}>
        Release …
      </Button>
    </TopBar>
  );
}

const SAVE_WORDS = { saved: 'saved', changed: 'saving …', saving: 'saving …', conflict: 'not saved', failed: 'not saved' } as const;
