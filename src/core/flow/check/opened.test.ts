import { DEMO_LIBRARY } from '../../../testing/demo-library';
import { parseFlow } from '../syntax';
import { checkFlow } from './index';

const says = (body: string): readonly string[] =>
  checkFlow(parseFlow(`flow "X"\nabout person\n\ntake in from hand\n${body}`), DEMO_LIBRARY)
    .filter(({ severity }) => severity === 'error')
    .map(({ message }) => message);
const OPEN = 'open deal in "Glasshouse sales" at "Qualified" as sale\n';

describe('fields of a deal that a line opened', () => {
  test('are set by the lines below it, with values of their type', () => {
    expect(says(`${OPEN}set sale.amount = 1500\n`)).toEqual([]);
    expect(says(`${OPEN}set sale.amount = "much"\n`)).toEqual(['a number is needed here']);
  });
  test('but its stage, which is moved, and what is worked out', () => {
    expect(says(`${OPEN}set sale.stage = "Won"\n`)).toEqual(['“sale.stage” is not a field that can be written']);
    expect(says(`${OPEN}set sale.quiet_days = 3\n`)).toEqual(['“sale.quiet_days” is not a field that can be written']);
  });
  test('are nobody’s above it, nor of an application', () => {
    expect(says(`set sale.amount = 1500\n${OPEN}`)).toEqual(['“sale.amount” is not a field that can be written']);
  });
});

describe('fields of an application that a line opened', () => {
  const APPLY = 'open application for "Commissioning technician" at "Received" as job\n';
  test('are set and compared with what its opening says, which stays the opening’s', () => {
    expect(says(`${APPLY}set job.could_begin = date("2027-01-01")\nkeep when job.could_begin <= job.wanted_by\n`)).toEqual([]);
    expect(says(`${APPLY}set job.could_begin = 4\n`)).toEqual(['a date is needed here']);
    expect(says(`${APPLY}set job.wanted_by = date("2027-01-01")\n`)).toEqual(['“job.wanted_by” is not a field that can be written']);
    expect(says(`${APPLY}set job.stage = "Read"\n`)).toEqual(['“job.stage” is not a field that can be written']);
  });
});
