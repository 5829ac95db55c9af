/** @jsxImportSource @emotion/react */
'use client';
import { Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { plural } from '../../../core/base';
import { answerName, targetLabel, targetsOf, type PayloadMatching, type Target } from '../../../core/intake';
import { call, sayProblem } from '../../client';
import { useFields } from '../../client/fields';
import { TextArea } from '../../kit/TextArea';
import { agoText } from '../../kit/format';
import type { SaidText } from '../../kit/parts';
import { DoorHead, type DoorView } from './DoorHead';
import { EntryTable } from './Entries';
import './forms.css';
import { placed } from '../../kit/placed';

interface Posted {
  readonly id: string;
  readonly no: number;
  readonly receivedAt: number;
  readonly raw: Readonly<Record<string, string>>;
  readonly state: 'taken' | 'refused';
  readonly why: string;
  readonly personId: string | null;
  readonly personName: string | null;
}
interface Props {
  readonly view: DoorView & {
    readonly slug: string;
    readonly matching: PayloadMatching;
    readonly sample: Readonly<Record<string, string>> | null;
    readonly entries: readonly Posted[];
  };
  readonly now: number;
  readonly zone: string;
  readonly publicUrl: string;
  readonly mayChange: boolean;
  readonly mayOpen: boolean;
}

/** A webhook address: where to post, what of an example goes to which field, what was posted. */
export function WebhookPage({ view, now, zone, publicUrl, mayChange, mayOpen }: Props) {
  const router = useRouter();
  const [values, setValues] = useState(view.sample);
  const [matching, setMatching] = useState(view.matching);
  const [becomes, setBecomes] = useState<string | null>(null);
  const [said, setSaid] = useState<SaidText | null>(null);
  const failed = (error: unknown): void => {
    setSaid({ calm: false, text: sayProblem(error) });
  };
  const save = (isOn: boolean): void => {
    call('saveWebhookIntake', { params: { id: view.id }, body: { matching: [...matching], isOn } }).then(() => {
      setSaid({ calm: true, text: 'Kept. What waited can be brought again below.' });
      router.refresh();
    }, failed);
  };
  const tryOut = (text: string, with_: PayloadMatching): void => {
    call('tryWebhookIntake', { params: { id: view.id }, body: { json: text, matching: [...with_] } }).then((answer) => {
      setValues(answer.values);
      setMatching(answer.matching);
      setBecomes([answer.becomes, answer.why, ...answer.remarks].filter((part) => part !== '').join(' · '));
    }, failed);
  };
  const match = (path: string, target: Target): void => {
    setMatching([...matching.filter((entry) => entry.path !== path), { path, target }]);
    setBecomes(null);
  };
  const again = (): void => {
    call('bringWebhookAgain', { params: { id: view.id }, body: {} }).then((answer) => {
      setSaid({ calm: answer.refused === 0, text: `${plural(answer.taken, 'message')} taken in, ${answer.refused} still refused.` });
      router.refresh();
    }, failed);
  };
  const waiting = view.entries.filter((entry) => entry.state === 'refused').length;
  return (
    <>
      <DoorHead
        door={view}
        told={`${view.lastAt === null ? 'nothing posted yet' : `last posted ${agoText(view.lastAt, now)}`} · ${plural(view.taken, 'message')} taken in`}
        said={said}
        onSaid={setSaid}
        onSwitch={mayChange ? save : undefined}
      >
        <Button
          variant="contained"
          disabled={values === null}
          onClick={() => {
            save(view.isOn);
          }}
        >
          Keep the matching
        </Button>
      </DoorHead>
      <div className="cols">
        <section className="col paper" css={placed({ flex: '1 1 560px' })} aria-label="Values and fields">
          <div className="bar">
            <h2 className="grow">What goes where</h2>
            {becomes === null ? null : <span className="strong">{becomes}</span>}
          </div>
          {values === null ? (
            <p className="empty">
              Post one message to the address, or paste an example at the right: its values appear here and are matched to fields.
            </p>
          ) : (
            <ValueTable values={values} matching={matching} mayChange={mayChange} onMatch={match} />
          )}
          <div className="bar ruled">
            <h2 className="grow">What was posted</h2>
            {waiting > 0 && mayChange && view.matching.length > 0 ? (
              <Button onClick={again}>Bring {plural(waiting, 'refused message')} again</Button>
            ) : null}
          </div>
          <EntryTable
            mayOpen={mayOpen}
            entries={view.entries.map((entry) => ({ ...entry, answers: entry.raw, files: [] }))}
            questions={[...new Set(view.entries.flatMap((entry) => Object.keys(entry.raw)))].map((path) => ({
              id: path,
              label: path,
              mendable: true,
            }))}
            zone={zone}
            mend={mayChange ? (id, raw) => call('mendPosted', { params: { id }, body: { raw: { ...raw } } }) : undefined}
            onSaid={setSaid}
          />
        </section>
        <WhereToPost
          address={`${publicUrl}/in/${view.slug}`}
          mayChange={mayChange}
          onTry={(json) => {
            tryOut(json, view.matching.length === 0 && values === null ? [] : matching);
          }}
        />
      </div>
    </>
  );
}

interface ValueTableProps {
  readonly values: Readonly<Record<string, string>>;
  readonly matching: PayloadMatching;
  readonly mayChange: boolean;
  readonly onMatch: (path: string, target: Target) => void;
}
/** Each value of the example, and the field it is taken as. */
function ValueTable({ values, matching, mayChange, onMatch }: ValueTableProps) {
  const fields = useFields();
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>value at</th>
          <th>in the example</th>
          <th>is taken as</th>
        </tr>
      </thead>
      <tbody>
        {Object.entries(values).map(([path, value]) => (
          <tr key={path}>
            <td>
              <code>{path}</code>
              <div className="small quiet">entry.{answerName(path)}</div>
            </td>
            <td className="wrap">{value.slice(0, 120)}</td>
            <td>
              <TextField
                select
                value={matching.find((entry) => entry.path === path)?.target ?? 'leave out'}
                disabled={!mayChange}
                onChange={(event) => {
                  onMatch(path, event.target.value);
                }}
                slotProps={{ htmlInput: { 'aria-label': `${path} is taken as` } }}
              >
                {targetsOf(fields).map((target) => (
                  <MenuItem key={target} value={target}>
                    {targetLabel(target, fields)}
                  </MenuItem>
                ))}
              </TextField>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface WhereProps {
  readonly address: string;
  readonly mayChange: boolean;
  readonly onTry: (json: string) => void;
}
function WhereToPost({ address, mayChange, onTry }: WhereProps) {
  const [json, setJson] = useState('');
  return (
    <section className="col" css={placed({ flex: '0 1 430px' })} aria-label="Where to post">
      <div className="share">
        <h2>Where to post</h2>
        <TextField fullWidth value={address} slotProps={{ htmlInput: { readOnly: true, 'aria-label': 'Address' } }} />
        <p className="quiet small">
          JSON by POST. Signed after Standard Webhooks (webhook-id, webhook-timestamp, webhook-signature), or with the token as
          Authorization: Bearer …, or X-Token. A message with the same id is the same message: it can be sent again safely. Messages signed
          more than five minutes ago are refused.
        </p>
        <h2>Try an example</h2>
        <TextArea
          label="Example"
          rows={8}
          value={json}
          isCode
          placeholder={'{ "contact": { "name": "Mara Quill", "email": "m.quill@firm.example" } }'}
          onChange={setJson}
        />
        <p>
          <Button
            disabled={json.trim() === '' || !mayChange}
            onClick={() => {
              onTry(json);
            }}
          >
            See what it would become
          </Button>{' '}
          <span className="quiet small">nothing is kept</span>
        </p>
      </div>
    </section>
  );
}
