import { catalogueOf, STANDARD } from '../../fields';
import type { Library } from '../check';
import { numberedLines, parseFlow, parseLines, printFlow, quote } from '../syntax';
import { readCondition } from './conditions';
import { digits, type Above } from './names';

/** What a phrase was understood as: canonical lines, one reading or several to choose from; or why it was not. */
export type PhraseReading = { readonly ok: true; readonly lines: readonly string[] } | { readonly ok: false; readonly why: string };

interface Ask {
  readonly said: string;
  readonly library: Library;
  readonly above: Above;
}
type Rule = readonly [pattern: RegExp, read: (found: RegExpExecArray, ask: Ask) => PhraseReading];

const reading = (...lines: readonly string[]): PhraseReading => ({ ok: true, lines });
const refused = (why: string): PhraseReading => ({ ok: false, why });

const fold = (text: string): string => text.toLowerCase().replace(/["“”]/g, '').trim();
/** The thing a phrase names: by its name, else by words its name holds; the only one there is when none is named. */
function thing(
  said: string | undefined,
  names: readonly string[],
  what: string,
): { readonly ok: true; readonly names: readonly string[] } | { readonly ok: false; readonly why: string } {
  const wanted = fold(said ?? '').replace(/^(?:the|our|team|plan|text|mail|template|scorecard|webhook|list|file)\s+/, '');
  if (names.length === 0) return { ok: false, why: `there is no ${what} yet` };
  if (wanted === '') return names.length === 1 ? { ok: true, names } : { ok: true, names: names.slice(0, 4) };
  const exact = names.filter((name) => fold(name) === wanted);
  const holding = names.filter((name) => fold(name).includes(wanted));
  if (exact.length > 0) return { ok: true, names: exact };
  if (holding.length > 0) return { ok: true, names: holding.slice(0, 4) };
  return {
    ok: false,
    why: `there is no ${what} “${said ?? ''}”: there is ${names
      .slice(0, 5)
      .map((name) => `“${name}”`)
      .join(', ')}`,
  };
}

function withThing(said: string | undefined, names: readonly string[], what: string, line: (name: string) => string): PhraseReading {
  const found = thing(said, names, what);
  return found.ok ? reading(...found.names.map((name) => line(quote(name)))) : refused(found.why);
}

function withCondition(said: string, ask: Ask, line: (feel: string) => string): PhraseReading {
  const read = readCondition(said, ask.above);
  return read.ok ? reading(...read.feel.map(line)) : refused(read.why);
}

const AMOUNT = '(an?|one|two|three|four|five|six|seven|eight|nine|ten|\\d+)';
const SPAN = `${AMOUNT} (working days?|workdays?|minutes?|hours?|days?|weeks?)`;
function span(amount: string | undefined, unit: string | undefined): string {
  const count = digits(amount ?? '1');
  const one = (unit ?? 'day').replace(/^workday/, 'working day').replace(/s$/, '');
  return `${count} ${one}${count === '1' ? '' : 's'}`;
}
const message = ({ above }: Ask): string | undefined => above.message;
const noMessage = refused('no message is written above: put a write line first');

/** In order: the first pattern that fits decides. Patterns are matched against the folded phrase; quoted names keep their case. */
const RULES: readonly Rule[] = [
  // What may not be done comes first.
  [
    /\bwithout (?:asking|approval|a person|anyone)\b/,
    () => refused('nothing leaves without a person’s approval: ask … to approve …, then send'),
  ],
  [
    /\b(?:ignore|despite|even if).*(?:do.not.contact|unsubscribed?)\b/,
    () => refused('do-not-contact and unsubscribe always apply: no flow can switch them off'),
  ],
  [
    /^(?:delete|erase|remove) /,
    () =>
      refused('a flow deletes nothing: what is known of somebody stays, and who is not to be written to is put among those under Settings'),
  ],
  [/^(?:call|phone|ring) (?:them|him|her|the|up)\b/, () => refused('no telephone is connected to this workspace')],
  [/^(?:book|plan|arrange) (?:a )?(?:meeting|call|slot)\b/, () => refused('no calendar is connected to this workspace')],
  [/^wait (?:for ?ever|as long as it takes)/, () => refused('say how long: a wait without an end never ends')],
  // Conditions.
  [
    /^(?:only|keep|continue|go on|proceed|filter)(?: on| those| them| people| persons| companies| firms| records)*(?: only)?(?: if| when| where| those| people| companies| who| whose| that| which)* (.+)$/,
    (found, ask) => withCondition(tail(found, ask), ask, (feel) => `keep when ${feel}`),
  ],
  [
    /^(?:drop|skip|leave out|throw out|discard|exclude)(?: everyone| all| those| people| companies| records| them)*(?: if| when| where| who| whose| that| which)* (.+)$/,
    (found, ask) => withCondition(tail(found, ask), ask, (feel) => `keep when not(${feel})`),
  ],
  [/^(?:if|in case|when) (.+)$/, (found, ask) => withCondition(tail(found, ask), ask, (feel) => `split\n  when ${feel}`)],
  // Intakes.
  [
    /^(?:start|begin|take|import|use)(?: with| from| in| everyone from| everybody from| people from)* (?:the )?(?:list|file)(?: called| named)? ?(.*)$/,
    (found, ask) =>
      withThing(
        found[1],
        ask.library.intakes.filter((intake) => intake.kind === 'file').map((intake) => intake.name),
        'file',
        (name) => `take in from file ${name}`,
      ),
  ],
  [
    /^(?:start|begin|take|use)(?: with| from| in)* (?:the )?form(?: called| named)? ?(.*)$/,
    (found, ask) =>
      withThing(
        found[1],
        ask.library.intakes.filter((intake) => intake.kind === 'form').map((intake) => intake.name),
        'form',
        (name) => `take in from form ${name}`,
      ),
  ],
  [/^(?:start|begin|take (?:them )?in)(?: them)? by hand$/, () => reading('take in from hand')],
  // Finding out.
  [
    /^(?:check|see|look) (?:if|whether) (?:we (?:already )?know|they are known|it is known)|^(?:match|compare).*\bcrm\b|^(?:find|look for|remove|check for) duplicates?/,
    () => reading('match company, person\n  ask above 0.60\n  same above 0.95'),
  ],
  [
    /^(?:read|look at|visit|go through|research|check) (?:their |the |its )?(?:company )?(?:web ?site|site|home ?page|web)\b/,
    (_, ask) => reading(`read company from website as research\n  ${firstQuestion(ask.library)}`),
  ],
  [
    /^(?:score|rate|grade)(?: them| it| the company| the firm| company)?(?: (?:with|by|using|against|on) (.+))?$/,
    (found, ask) =>
      withThing(
        found[1],
        ask.library.scorecards.map((card) => card.name),
        'scorecard',
        (name) => `score company with ${name} as fit`,
      ),
  ],
  [
    /^(?:find|get|look up|search|fetch)(?: for)? (?:their |the |an? |his |her |work )*(?:e-?mail|mail)(?: address(?:es)?)?(?: (?:with|from|by|using) (.+))?$/,
    (found, ask) =>
      withThing(
        found[1],
        ask.library.chains.filter((chain) => chain.field === 'email').map((chain) => chain.name),
        'lookup chain',
        (name) => `look up email with ${name}`,
      ),
  ],
  [
    /^(?:find|get|look up|search|fetch) (?:their |the |an? )*(?:phone|mobile|number)/,
    () => refused('no lookup chain finds phone numbers: only e-mail can be looked up'),
  ],
  // Records.
  [/^(?:open|make|create|start) (?:a |the )?deal(?: in (.+?))?(?: at (.+))?$/, openDeal],
  [
    /^(?:move|put|shift) (?:the |it |this )?(?:deal )?(?:in)?to (.+)$/,
    (found, ask) =>
      ask.above.deal === undefined
        ? refused('no deal is opened above: put an open line first')
        : withThing(
            found[1],
            [...new Set(ask.library.pipelines.flatMap((pipeline) => pipeline.stages))],
            'stage',
            (name) => `move ${ask.above.deal ?? 'deal'} to ${name}`,
          ),
  ],
  [
    /^(?:assign|give|hand|share out|distribute)(?: it| them| the deal| the person| the lead)?(?: in turn| by turns| evenly)?(?: to| among| between)+ (?:the )?(?:team )?(.+?)(?: in turn| by turns| one after the other)?$/,
    (found, ask) =>
      withThing(
        found[1],
        ask.library.teams,
        'team',
        (name) => `assign ${ask.above.deal === undefined ? '' : `${ask.above.deal} `}in turn among ${name}`,
      ),
  ],
  [
    /^(?:mark|flag|label)(?: them| it| the person| the record)? as (.+)$/,
    (found, ask) => reading(`set status = ${quote(original(found[1] ?? '', ask))}`),
  ],
  [
    /^(?:set|change|put|make) (?:the |their )?status (?:to|=|as) (.+)$/,
    (found, ask) =>
      reading(`set status = ${quote(original(found[1] ?? '', ask))}`, `set company.status = ${quote(original(found[1] ?? '', ask))}`),
  ],
  [
    /^(?:leave|write|make|add) (?:a )?note(?: that| saying|:)? (.+)$|^(?:note|remember) that (.+)$/,
    (found, ask) => reading(`note ${quote(original(found[1] ?? found[2] ?? '', ask))}`),
  ],
  // Messages.
  [
    /^(?:have|let|get) (?:the )?(?:team )?(.+?) (?:approve|check|look at|look over|confirm)(?: it| the mail| the message| the e-?mail)?(?: within (.+))?$/,
    askApproval,
  ],
  [
    /^ask (?:the )?(?:team )?(.+?) (?:for approval|to check|to look at it|to approve(?: it)?|whether it is good)(?: within (.+))?$/,
    askApproval,
  ],
  [
    /^(?:follow up|follow them up|send|use|run)(?: them)?(?: with| by)?(?: the)? plan (.+)$|^follow up with (.+)$/,
    (found, ask) =>
      withThing(
        found[1] ?? found[2],
        ask.library.plans.map((plan) => plan.name),
        'plan',
        (name) => `follow up with ${name}`,
      ),
  ],
  [new RegExp(`^(?:write|follow up|send|mail)(?: to)?(?: them| everyone| it)?,? ${AMOUNT} (?:times|mails|messages|touches)`), times],
  [
    /^(?:send)(?: it| them)?(?: the)?(?: mail| message| e-?mail)?$/,
    (_found, ask) => (message(ask) === undefined ? noMessage : reading(`send ${message(ask) ?? ''}`)),
  ],
  [
    /^(?:write|compose|prepare|draft|make)(?: them| to them| him| her)?(?: a| an| the)?(?: e-?mail| mail| message| text| template)*(?: called| with| from| named| using)? ?(.*)$/,
    (found, ask) =>
      withThing(
        found[1],
        ask.library.templates.map((template) => template.name),
        'text',
        (name) => `write email ${name} as opener`,
      ),
  ],
  // Time.
  [
    new RegExp(
      `^(?:wait|pause|hold)(?: until| for)? (?:they|he|she|we get|there is|an?|the|for)?\\s*(?:answer|reply|replies|reply comes|write back)(?:.*?(?:at most|up to|no longer than|for|within) ${SPAN})?`,
    ),
    (found, ask) =>
      message(ask) === undefined
        ? noMessage
        : reading(`wait for reply to ${message(ask) ?? ''}, at most ${found[1] ? span(found[1], found[2]) : '8 days'} as answer`),
  ],
  [
    /^(?:wait|pause|hold)? ?until (\d{1,2})(?::(\d\d))?(?: o.?clock| am| in the morning)?(?: (?:on )?(?:a |the next )?(working day|workday))?$/,
    (found) => reading(`wait until ${(found[1] ?? '9').padStart(2, '0')}:${found[2] ?? '00'}${found[3] ? ' on a working day' : ''}`),
  ],
  [
    new RegExp(`^(?:wait|pause|hold|sleep)(?: for)? ${SPAN}$|^${SPAN} later$`),
    (found) => reading(`wait ${span(found[1] ?? found[3], found[2] ?? found[4])}`),
  ],
  [
    new RegExp(`^(?:collect|gather|bundle) ${AMOUNT}(?: of them| records| people)?,? or (?:wait |after )?${SPAN}$`),
    (found) => reading(`gather ${digits(found[1] ?? '')} or ${span(found[2], found[3])}`),
  ],
  // Colleagues and other systems.
  [/^(?:tell|notify|inform|let|warn) (.+?)(?: know)?(?: that|:| about it:?) (.+)$/, tellSomebody],
  [/^(?:tell|notify|inform) ("[^"]+"|\S+)$/, () => refused('say what to tell them: tell owner "…"')],
  [
    /^(?:pass|hand|give|post|forward)(?: it| them| this| the record)?(?: over| on)? to (.+)$/,
    (found, ask) => withThing(found[1], ask.library.webhooks, 'webhook', (name) => `hand over to ${name}`),
  ],
  [
    /^(?:stop|end|finish)(?: here| it| there| the trip)?(?:(?: because|:| as) (.+))?$/,
    (found, ask) => reading(found[1] ? `stop ${quote(original(found[1], ask))}` : 'stop'),
  ],
];

/** The words behind a rule's first group, as they were typed. */
const tail = (found: RegExpExecArray, ask: Ask): string => original(found[1] ?? '', ask);
const original = (folded: string, { said }: Ask): string => {
  const at = said.toLowerCase().lastIndexOf(folded);
  return (at < 0 ? folded : said.slice(at, at + folded.length)).replace(/^["“]|["”]$/g, '').trim();
};

function openDeal(found: RegExpExecArray, { library }: Ask): PhraseReading {
  const pipelines = thing(
    found[1],
    library.pipelines.map((pipeline) => pipeline.name),
    'pipeline',
  );
  if (!pipelines.ok) return refused(pipelines.why);
  const lines: string[] = [];
  for (const name of pipelines.names) {
    const stages = library.pipelines.find((pipeline) => pipeline.name === name)?.stages ?? [];
    const stage = found[2] ? thing(found[2], stages, `stage of ${name}`) : { ok: true as const, names: stages.slice(0, 1) };
    if (!stage.ok) return refused(stage.why);
    lines.push(...stage.names.map((entry) => `open deal in ${quote(name)} at ${quote(entry)} as deal`));
  }
  return reading(...lines);
}

function askApproval(found: RegExpExecArray, ask: Ask): PhraseReading {
  const name = message(ask);
  if (name === undefined) return noMessage;
  const limit = found[2] === undefined ? '' : ` within ${within(found[2])}`;
  return withThing(
    found[1],
    [...ask.library.teams, 'owner', 'builder', 'reviewer'],
    'team or role',
    (who) => `ask ${who} to approve ${name}${limit}`,
  );
}
function within(said: string): string {
  const found = new RegExp(`^${SPAN}$`).exec(said.trim());
  return found ? span(found[1], found[2]) : '2 days';
}

/** “three times”: plans with that many touches. */
function times(found: RegExpExecArray, { library }: Ask): PhraseReading {
  const count = Number(digits(found[1] ?? ''));
  const plans = library.plans.filter((plan) => plan.touches.length === count);
  if (plans.length === 0) return refused(`no plan has ${count} touches: plans are made under Messages`);
  return reading(...plans.map((plan) => `follow up with ${quote(plan.name)}`));
}

function tellSomebody(found: RegExpExecArray, ask: Ask): PhraseReading {
  const text = original(found[2] ?? '', ask);
  const who = original(found[1] ?? '', ask).replace(/^the /, '');
  if (/^(?:owner|builder|reviewer)$/i.test(who)) return reading(`tell ${who.toLowerCase()} ${quote(text)}`);
  const { people, teams, webhooks } = ask.library;
  return withThing(who, [...people, ...teams, ...webhooks], 'person, team or webhook', (name) => `tell ${name} ${quote(text)}`);
}

/** A question to begin with: after the first field of the workspace's own, or after what any company has. */
function firstQuestion(library: Library): string {
  const field = library.fields.find((entry) => entry.record === 'company' && !STANDARD.of('company', entry.key) && !entry.isRetired);
  if (!field) return 'employees: number "How many people work there?"';
  const type = field.type === 'number' && field.unit !== undefined ? `number in ${field.unit}` : (ASKED_AS[field.type] ?? 'text');
  return `${field.key}: ${type} "What is their ${field.label}?"`;
}
const ASKED_AS: Readonly<Record<string, string>> = { number: 'number', 'yes/no': 'yes/no', year: 'year', date: 'date', list: 'list' };

/** What the lines above leave to speak of. */
function aboveOf(text: string, library: Library): Above {
  const named = new Map<string, string>();
  const { tree } = parseFlow(text);
  for (const { line } of numberedLines(tree.lines)) if ('as' in line.step && line.step.as) named.set(line.step.verb, line.step.as.text);
  return {
    about: tree.about?.text === 'deal' ? 'deal' : 'person',
    fields: catalogueOf(library.fields),
    score: named.get('score'),
    message: named.get('write'),
    deal: named.get('open'),
  };
}

/**
 * Reads a phrase in everyday words as flow text. Every line it gives parses and prints as itself; where a phrase may mean
 * several things all are given, and nothing is chosen. `above` is the flow's text before the place of the line.
 */
export function readPhrase(phrase: string, above: string, library: Library): PhraseReading {
  const said = phrase.trim().replace(/\s+/g, ' ').replace(/[.!]$/, '');
  if (said === '') return refused('nothing is typed');
  const ask: Ask = { said, library, above: aboveOf(above, library) };
  for (const [pattern, read] of RULES) {
    const found = pattern.exec(said.toLowerCase());
    if (!found) continue;
    const made = read(found, ask);
    if (!made.ok) return made;
    return { ok: true, lines: made.lines.map((line) => printFlow(parseLines(line).tree).trimEnd()) };
  }
  return refused('this cannot be read as a line: lines begin with a verb such as keep, read, score, write, ask, wait');
}
