import { askOf, draftOf, draftProblem, newDraft, withTls } from './mailbox';

const whole = {
  ...newDraft('Europe/London', 'Thornwick'),
  name: 'Sales',
  address: 'sales@thornwick.example',
  host: 'smtp.thornwick.example',
};

test('what is missing is said one thing at a time, in the order of the form', () => {
  expect(draftProblem(newDraft('Europe/London', ''))).toContain('has a name');
  expect(draftProblem({ ...whole, address: '' })).toContain('address it writes from');
  expect(draftProblem({ ...whole, address: 'sales' })).toContain('address it writes from');
  expect(draftProblem({ ...whole, dailyLimit: '0' })).toContain('a day at most');
  expect(draftProblem({ ...whole, personGapDays: 'two' })).toContain('days between');
  expect(draftProblem({ ...whole, minutesApart: '1' })).toContain('2 at least');
  expect(draftProblem({ ...whole, rampFrom: '0' })).toContain('on the first day');
  expect(draftProblem({ ...whole, rampStep: '' })).toContain('more each weekday');
  expect(draftProblem({ ...whole, rampFrom: '', rampStep: '' })).toBeUndefined();
  expect(draftProblem({ ...whole, replyTo: 'nobody' })).toContain('where answers go');
  expect(draftProblem({ ...whole, host: ' ' })).toContain('SMTP server');
  expect(draftProblem({ ...whole, port: '70000' })).toContain('the port is a number');
  expect(draftProblem({ ...whole, service: 'Quayside' })).toContain('which account signs in at Quayside');
  expect(draftProblem(whole)).toBeUndefined();
  // Without a way of its own nothing of that way is asked for.
  expect(draftProblem({ ...whole, ownRoute: false, host: '' })).toBeUndefined();
});

test('what is kept is what was typed; an empty password leaves the kept one', () => {
  expect(askOf({ ...whole, password: '' })).toMatchObject({
    password: null,
    replyTo: null,
    dailyLimit: 40,
    route: { host: 'smtp.thornwick.example', port: 465 },
  });
  expect(askOf({ ...whole, password: 'secret', ownRoute: false })).toMatchObject({ password: 'secret', route: null });
  const box = {
    name: 'Sales',
    ...askOf({ ...whole, service: 'Quayside', user: 'sales' }),
    rampUp: { from: 10, step: 5, since: '2026-11-24' },
    limitToday: 10,
    hasPassword: false,
    checked: null,
    back: { sent: 0, bounced: 0, complained: 0, standing: 'good' as const, says: '' },
    rests: null,
    domain: { seen: null, key: null },
    usedBy: [],
  };
  expect(askOf(draftOf(box))).toEqual({ ...askOf({ ...whole, service: 'Quayside', user: 'sales' }), isNew: false });
});

test('the usual port follows the way to encrypt, one that was typed stays', () => {
  expect(withTls(whole, 'after a greeting').port).toBe('587');
  expect(withTls({ ...whole, port: '2525' }, 'never').port).toBe('2525');
});
