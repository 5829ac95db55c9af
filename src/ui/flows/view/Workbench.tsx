'use client';
import { Notice } from '../../kit/parts';
import { FlowColumn } from './FlowColumn';
import './flows.css';
import { NotSaved } from './NotSaved';
import { RecordsColumn } from './RecordsColumn';
import { useBenchKeys } from './useBenchKeys';
import { useWorkbench, type WorkbenchProps } from './useWorkbench';
import { WorkbenchBar } from './WorkbenchBar';

/** The main screen: the flow as a readable script, live records beside it. */
export function Workbench(props: WorkbenchProps) {
  const { flow, library, zone, mayEdit, mayRelease } = props;
  const bench = useWorkbench(props);
  const { send, saveNow } = bench.drafting;
  useBenchKeys(bench, mayEdit);
  return (
    <>
      <WorkbenchBar bench={bench} flow={flow} zone={zone} mayEdit={mayEdit} mayRelease={mayRelease} />
      <NotSaved flowId={flow.id} draft={bench.draft} send={send} saveNow={saveNow} />
      {bench.trialling.problem ? <Notice>{bench.trialling.problem}</Notice> : null}
      <div className="cols">
        <FlowColumn bench={bench} library={library} mayEdit={mayEdit} />
        <RecordsColumn bench={bench} flowId={flow.id} />
      </div>
    </>
  );
}
