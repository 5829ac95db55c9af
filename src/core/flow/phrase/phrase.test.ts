import { DEMO_LIBRARY } from '../../../testing/demo-library';
import { checkFlow } from '../check';
import { parseFlow } from '../syntax';
import { readPhrase } from './index';

const HEAD = 'flow "X"\nabout person\n\ntake in from hand\n';
const SCORED = `${HEAD}score company with "Grower fit" as fit\n`;
const WRITTEN = `${SCORED}keep when email != null\nopen deal in "Glasshouse sales" at "Qualified" as deal\nwrite email "First contact" as opener\n`;
const read = (phrase: string, above = WRITTEN) => readPhrase(phrase, above, DEMO_LIBRARY);

describe('everyday words become the canonical line', () => {
  test.each([
    ['only if score above 75 and they have a site', 'keep when fit.points > 75 and company.website != null'],
    ['only those with an e-mail', 'keep when email != null'],
    ['keep companies with 2 ha or more of glass', 'keep when company.heated_area >= 2 ha'],
    ['only people who have at least 3 hectares of glass', 'keep when company.heated_area >= 3 ha'],
    ['continue if the country is NL', 'keep when company.country = "NL"'],
    ['only if the crop is not Roses', 'keep when company.main_crop != "Roses"'],
    ['go on if heated area is between 2 and 8', 'keep when company.heated_area between 2 ha and 8 ha'],
    ['keep those whose role contains director', 'keep when contains(job_title, "director")'],
    ['only if the score is at least 60 or the expansion is known', 'keep when fit.points >= 60 or company.expansion != null'],
    ['only companies that grow all year', 'keep when company.all_year = true'],
    ['only if it grows all year', 'keep when company.all_year = true'],
    ['only if an expansion was announced', 'keep when company.expansion = true'],
    ['only when employees are more than 20', 'keep when company.employees > 20'],
    ['drop those without a site', 'keep when not(company.website = null)'],
    ['skip people with no e-mail', 'keep when not(email = null)'],
    ['leave out those whose score is below 40', 'keep when not(fit.points < 40)'],
    ['if the score is over 75', 'split\n  when fit.points > 75\n'],
    ['when the band is hot', 'split\n  when fit.band = "hot"\n'],
    ['start from the list Autumn fair', 'take in from file "Autumn fair"'],
    ['take everyone from the list', 'take in from file "Autumn fair"'],
    ['start with the form Project enquiry', 'take in from form "Project enquiry"'],
    ['take them in by hand', 'take in from hand'],
    ['check whether we know them', 'match company, person\n  ask above 0.60\n  same above 0.95'],
    ['find duplicates', 'match company, person\n  ask above 0.60\n  same above 0.95'],
    ['look at their web site', 'read company from website as research\n  heated_area: number in ha "What is their heated area?"'],
    ['score them', 'score company with "Grower fit" as fit'],
    ['rate the company by grower fit', 'score company with "Grower fit" as fit'],
    ['find their e-mail', 'look up email with "Work e-mail"'],
    ['get the mail address with work e-mail', 'look up email with "Work e-mail"'],
    ['open a deal', 'open deal in "Glasshouse sales" at "Qualified" as deal'],
    ['make a deal in glasshouse sales at meeting', 'open deal in "Glasshouse sales" at "Meeting" as deal'],
    ['move the deal to proposal', 'move deal to "Proposal"'],
    ['assign it to north in turn', 'assign deal in turn among "north"'],
    ['share out among the team south', 'assign deal in turn among "south"'],
    ['mark them as worth a look', 'set status = "worth a look"'],
    ['note that they came by the stand', 'note "they came by the stand"'],
    ['leave a note: Ask again in May', 'note "Ask again in May"'],
    ['write them first contact', 'write email "First contact" as opener'],
    ['prepare the mail called Second look', 'write email "Second look" as opener'],
    ['have north approve it within two days', 'ask "north" to approve opener within 2 days'],
    ['let the owner check the mail', 'ask "owner" to approve opener'],
    ['ask south for approval', 'ask "south" to approve opener'],
    ['send it', 'send opener'],
    ['follow up with first contact', 'follow up with "First contact"'],
    ['write to everyone three times', 'follow up with "First contact"'],
    ['follow up three times', 'follow up with "First contact"'],
    ['wait three days', 'wait 3 days'],
    ['pause for a week', 'wait 1 week'],
    ['wait for 5 working days', 'wait 5 working days'],
    ['two hours later', 'wait 2 hours'],
    ['wait until they answer', 'wait for reply to opener, at most 8 days as answer'],
    ['wait for a reply, at most two weeks', 'wait for reply to opener, at most 2 weeks as answer'],
    ['wait until 9 in the morning', 'wait until 09:00'],
    ['wait until 8:30 on a working day', 'wait until 08:30 on a working day'],
    ['collect 50 or wait a day', 'gather 50 or 1 day'],
    ['tell the owner that a large firm came in', 'tell owner "a large firm came in"'],
    ['let Lucía know that somebody is not sure', 'tell "Lucía Ferrer Mas" "somebody is not sure"'],
    ['notify the yard board: a visitor came', 'tell "Yard board" "a visitor came"'],
    ['pass it on to the planning desk', 'hand over to "Planning desk"'],
    ['stop', 'stop'],
    ['stop because it is too small', 'stop "it is too small"'],
    ['end here.', 'stop'],
  ])('%s', (phrase, line) => {
    const found = read(phrase);
    expect(found).toEqual({ ok: true, lines: [line.trimEnd()] });
  });

  test('every line it gives parses, and says nothing that does not exist', () => {
    for (const phrase of [
      'only if score above 75 and they have a site',
      'find their e-mail',
      'have north approve it',
      'wait until they answer',
      'score them',
    ]) {
      const found = read(phrase);
      if (!found.ok) throw new Error(found.why);
      const parsed = parseFlow(`${WRITTEN}${found.lines[0] ?? ''}\n`);
      expect(parsed.problems).toEqual([]);
      expect(checkFlow(parsed, DEMO_LIBRARY).filter((finding) => finding.code === 'unknown thing')).toEqual([]);
    }
  });
});

describe('in a flow about deals', () => {
  test.each([
    ['only if the e-mail is known', 'keep when person.email != null'],
    ['only if the days of silence are more than 7', 'keep when quiet_days > 7'],
    ['keep those whose amount is over 20000', 'keep when amount > 20000 EUR'],
    ['only if the country is NL', 'keep when company.country = "NL"'],
  ])('%s', (phrase, line) => {
    expect(read(phrase, 'flow "X"\nabout deal\n\ntake in from hand\n')).toEqual({ ok: true, lines: [line] });
  });
});

describe('what may mean several things shows them all', () => {
  test.each([
    ['only if the phone is known', ['keep when phone != null', 'keep when company.phone != null']],
    ['only if the size is over 4', ['keep when company.employees > 4', 'keep when company.heated_area > 4 ha']],
    ['set the status to seen', ['set status = "seen"', 'set company.status = "seen"']],
    [
      'write them a text',
      DEMO_LIBRARY.templates
        .filter((template) => !template.channel)
        .slice(0, 4)
        .map((template) => `write email "${template.name}" as opener`),
    ],
  ])('%s', (phrase, lines) => {
    expect(read(phrase)).toEqual({ ok: true, lines });
  });
});

describe('what cannot or may not be done is refused with its reason', () => {
  test.each([
    ['send it without asking', WRITTEN, 'nothing leaves without a person’s approval'],
    ['ignore the do-not-contact list', WRITTEN, 'do-not-contact and unsubscribe always apply'],
    ['delete the record', WRITTEN, 'a flow deletes nothing'],
    ['call them up', WRITTEN, 'no telephone is connected'],
    ['book a meeting with north', WRITTEN, 'no calendar is connected'],
    ['wait forever', WRITTEN, 'a wait without an end never ends'],
    ['only if score above 75', HEAD, 'nothing has been scored above'],
    ['only if they are nice', WRITTEN, 'names no field that is known here'],
    ['send it', HEAD, 'no message is written above'],
    ['move the deal to Meeting', HEAD, 'no deal is opened above'],
    ['move the deal to Sold', WRITTEN, 'there is no stage “sold”'],
    ['find their phone number', WRITTEN, 'only e-mail can be looked up'],
    ['write them seven times', WRITTEN, 'no plan has 7 mails'],
    ['assign it to west', WRITTEN, 'there is no team “west”'],
    ['tell owner', WRITTEN, 'say what to tell them'],
    ['make it nice', WRITTEN, 'there is no text “it nice”'],
    ['abracadabra', WRITTEN, 'lines begin with a verb'],
    ['', WRITTEN, 'nothing is typed'],
  ])('%s', (phrase, above, why) => {
    const found = read(phrase, above);
    expect(found.ok).toBe(false);
    expect(found.ok ? '' : found.why).toContain(why);
  });
});
