import { addressRow, leftAlone, mailRuleSchema, meetingsIn, outsiders, siteOf, watchedSchema, type MailToJudge } from '.';

const NOW = Date.parse('2026-11-24T09:00:00Z');
const DAY = 86_400_000;

describe('mails that are left alone', () => {
  const mail: MailToJudge = {
    from: 'w.achterberg@achterberg-pots.example',
    fromName: 'Wilma Achterberg',
    subject: 'Offer for two houses',
    inReplyTo: null,
    references: [],
    autoSubmitted: false,
    isReport: false,
    answered: false,
    files: 0,
  };
  test.each<[string, Partial<MailToJudge>, object, RegExp | undefined]>([
    ['one that begins a conversation', {}, {}, undefined],
    ['an answer, where new ones are wanted', { inReplyTo: '<a@b.example>' }, {}, /is an answer/],
    ['an answer, where both are wanted', { references: ['<a@b.example>'] }, { only: 'both' }, undefined],
    ['a new one, where answers are wanted', {}, { only: 'answers' }, /begins a conversation/],
    ['one that somebody answered by hand', { answered: true }, { only: 'both' }, /answered it already/],
    ['an automatic reply', { autoSubmitted: true }, {}, /machine/],
    ['a delivery report', { isReport: true }, {}, /machine/],
    ['one without sender', { from: '' }, {}, /no sender/],
    ['another subject', {}, { subject: 'invoice' }, /subject/],
    ['the subject in another case', {}, { subject: 'OFFER' }, undefined],
    ['another sender', {}, { from: 'Handel' }, /sender/],
    ['the sender by a part of the address', {}, { from: 'achterberg-pots' }, undefined],
    ['no file', {}, { withFile: true }, /no file/],
    ['a file', { files: 1 }, { withFile: true }, undefined],
  ])('%s', (_name, more, rule, why) => {
    const said = leftAlone({ ...mail, ...more }, mailRuleSchema.parse(rule));
    if (why === undefined) expect(said).toBeUndefined();
    else expect(said).toMatch(why);
  });

  test('a company’s own host is its site, a host for anybody is none', () => {
    expect(siteOf('owen@marlpit-nurseries.example')).toBe('marlpit-nurseries.example');
    expect(siteOf('emrys@mailhall.example')).toBeNull();
    expect(siteOf('nobody')).toBeNull();
  });

  test('a sender as a row; without a name the address gives one', () => {
    expect(addressRow({ name: '', address: 'm.quill@oakmere-glass.example', note: 'Hello' })).toEqual({
      cells: ['M Quill', 'm.quill@oakmere-glass.example', 'oakmere-glass.example', 'Hello'],
      columns: [{ target: 'person.name' }, { target: 'person.email' }, { target: 'company.website' }, { target: 'note' }],
    });
  });
});

const event = (lines: readonly string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'BEGIN:VEVENT', 'UID:v1', 'DTSTAMP:20261120T080000Z', ...lines, 'END:VEVENT', 'END:VCALENDAR'].join(
    '\r\n',
  );
const PEOPLE = [
  'ORGANIZER;CN=Tomasz Wierzba:mailto:Tomasz@thornwick.example',
  'ATTENDEE;CN="Saarland, Imke";PARTSTAT=ACCEPTED:mailto:imke@kestrel.example',
  'ATTENDEE;PARTSTAT=NEEDS-ACTION:mailto:col@kestrel.example',
  'ATTENDEE;CN=Jo;PARTSTAT=DECLINED:mailto:jo@kestrel.example',
];
const VISIT = ['SUMMARY:Palm house', 'LOCATION:Kestrel', 'DTSTART:20261125T100000Z', 'DTEND:20261125T110000Z', ...PEOPLE];

describe('booked meetings', () => {
  test('everybody from outside, wherever they stand, and not who declined', () => {
    const [meeting] = meetingsIn(event(VISIT), NOW, NOW + 7 * DAY, 'Europe/London');
    expect(meeting).toMatchObject({ title: 'Palm house', place: 'Kestrel', start: Date.parse('2026-11-25T10:00:00Z') });
    expect(outsiders(meeting!, ['thornwick.example'])).toEqual([
      { name: 'Saarland, Imke', address: 'imke@kestrel.example' },
      { name: '', address: 'col@kestrel.example' },
    ]);
    // Seen from the other house, the organiser is the visitor.
    expect(outsiders(meeting!, ['kestrel.example']).map((person) => person.address)).toEqual(['tomasz@thornwick.example']);
  });

  test('a branch of our host is ours, a host that only ends alike is not', () => {
    const [meeting] = meetingsIn(
      event(VISIT.map((line) => line.replace('col@kestrel', 'col@north.thornwick'))),
      NOW,
      NOW + 7 * DAY,
      'Europe/London',
    );
    expect(outsiders(meeting!, ['thornwick.example']).map((person) => person.address)).toEqual(['imke@kestrel.example']);
    const [other] = meetingsIn(
      event(VISIT.map((line) => line.replace('col@kestrel', 'col@notthornwick'))),
      NOW,
      NOW + 7 * DAY,
      'Europe/London',
    );
    expect(outsiders(other!, ['thornwick.example'])).toHaveLength(2);
  });

  test('cancelled ones, whole days, past ones and those with nobody are left out', () => {
    const count = (lines: readonly string[]): number => meetingsIn(event(lines), NOW, NOW + 7 * DAY, 'Europe/London').length;
    expect(count([...VISIT, 'STATUS:CANCELLED'])).toBe(0);
    expect(count(['SUMMARY:Fair', 'DTSTART;VALUE=DATE:20261125', 'DTEND;VALUE=DATE:20261126', ...PEOPLE])).toBe(0);
    expect(count(VISIT.map((line) => line.replace('20261125', '20261120')))).toBe(0);
    expect(count(['SUMMARY:Alone', 'DTSTART:20261125T100000Z', 'DTEND:20261125T110000Z'])).toBe(0);
  });

  test('a series gives each of its times, without those taken out and with those moved', () => {
    const series = event([
      'SUMMARY:Round',
      'DTSTART;TZID=Europe/London:20261119T090000',
      'DTEND;TZID=Europe/London:20261119T093000',
      'RRULE:FREQ=WEEKLY;BYDAY=TH',
      'EXDATE;TZID=Europe/London:20261203T090000',
      ...PEOPLE,
    ]).replace(
      'END:VCALENDAR',
      [
        'BEGIN:VEVENT',
        'UID:v1',
        'RECURRENCE-ID;TZID=Europe/London:20261210T090000',
        'DTSTART;TZID=Europe/London:20261211T140000',
        'DTEND;TZID=Europe/London:20261211T143000',
        'SUMMARY:Round, moved',
        ...PEOPLE,
        'END:VEVENT',
        'END:VCALENDAR',
      ].join('\r\n'),
    );
    expect(
      meetingsIn(series, NOW, NOW + 25 * DAY, 'Europe/London').map((meeting) => [
        meeting.title,
        new Date(meeting.start).toISOString().slice(0, 10),
      ]),
    ).toEqual([
      ['Round', '2026-11-26'],
      ['Round, moved', '2026-12-11'],
      ['Round', '2026-12-17'],
    ]);
  });

  test('a zone that is only named, none at all, and one that nobody knows', () => {
    const july = (start: string): string | undefined => {
      const [meeting] = meetingsIn(
        event([start, ...PEOPLE]),
        Date.parse('2026-07-01T00:00:00Z'),
        Date.parse('2026-07-02T00:00:00Z'),
        'Europe/London',
      );
      return meeting && new Date(meeting.start).toISOString().slice(11, 16);
    };
    expect(july('DTSTART;TZID=Europe/Madrid:20260701T090000')).toBe('07:00');
    expect(july('DTSTART:20260701T090000')).toBe('08:00');
    expect(july('DTSTART;TZID=Nowhere Standard Time:20260701T090000')).toBe('08:00');
    expect(july('DTSTART:20260701T090000Z')).toBe('09:00');
  });

  test('what is no calendar says so', () => {
    expect(() => meetingsIn('<html>sign in</html>', NOW, NOW + DAY, 'Europe/London')).toThrow(/this is no calendar/);
    expect(() => meetingsIn('', NOW, NOW + DAY, 'Europe/London')).toThrow(/this is no calendar/);
  });
});

test('a door without what it needs is refused', () => {
  expect(watchedSchema.safeParse({ kind: 'mailbox', host: '', user: 'a', rule: {} }).success).toBe(false);
  expect(watchedSchema.safeParse({ kind: 'calendar', url: 'https://x.example/', ourHosts: [] }).success).toBe(false);
  expect(watchedSchema.parse({ kind: 'mailbox', host: 'imap.x.example', user: 'a', rule: {} })).toMatchObject({
    port: 993,
    secure: true,
    rule: { folder: 'INBOX', only: 'new' },
  });
});
