import { fold } from '../base';
import type { Asked } from './asked';
import { unitOf } from '../units';
import { isSmall, LANGUAGES, languageOf, stemOf, type Language } from './language';
import type { Token } from './tokens';

export type CueRole = 'ask' | 'head' | 'word' | 'not' | 'option' | 'for' | 'against';

/** One idea of a question with the phrases it goes by, as stems of one language. */
export interface Cue {
  readonly role: CueRole;
  /** as it stands in the question */
  readonly says: string;
  readonly phrases: readonly (readonly string[])[];
  /** the first so many phrases are the question's own words, the rest a dictionary's */
  readonly own: number;
  /** 0 to 1 */
  readonly weight: number;
  readonly option?: string;
  /** of an option: the words it goes by, folded, as they are given */
  readonly forms?: ReadonlySet<string>;
}

export interface Hit {
  readonly cue: Cue;
  readonly from: number;
  /** exclusive, in words */
  readonly to: number;
  /** 1: the whole phrase as asked; less: part of a compound, or a dictionary's word */
  readonly strength: number;
  /** met inside a longer word only */
  readonly inside?: true;
}

/** Words of a question that ask, and name nothing. */
const ASKING = new Set(
  (
    'what which where when whose many much long large big old often does do did has have having they them their there that this is are was were will been one ones company firm business house place name give tell say known kind type sort currently current now today present usually rule per year years last make made get gets getting got use uses used using run runs running open people work works standard newest latest recent total size number amount any own only not staying through ' +
    'welche welcher welches wann wieviel wieviele wie viele haben hat ihre ihr ihren sie gibt es sind ist wird werden nutzen firma betrieb unternehmen heute derzeit jahr jahre ' +
    'wanneer welke hoeveel hebben heeft zijn deze bedrijf vandaag jaar jaren hoe groot veel gebruiken ' +
    'cual cuales cuando cuanto cuantos cuantas tienen tiene donde empresa hoy ano anos usan utilizan que son ' +
    'quel quelle quels quelles quand combien sont leur leurs entreprise ils elles annee ans utilisent ont'
  ).split(' '),
);
const WORDS = /[\p{L}\p{N}]+/gu;
const wordsOf = (text: string): readonly string[] => fold(text).match(WORDS) ?? [];
const WEAK = new Set('since seit sinds desde depuis opened open new price fee company house per week from'.split(' '));
/** A question after whoever leads or decides, and what such people are called in any business. */
const LEADING_ASKED =
  /^\W*(?:who|wer|wie|quien|qui|chi)\b.*\b(?:decid\w*|runs?|leads?|owns?|manag\w*|in charge|entscheid\w*|leitet|fuhrt|gehort|beslis\w*|leidt|runt|decide|dirige|lleva|gere|tient)\b/;
const LEADING = [
  ...'owner|owners|proprietor|managing director|director|chief executive|ceo|general manager|manager|partner|decisions|run by|led by|takes over|took over|passed the keys to'.split(
    '|',
  ),
  ...'inhaber|inhaberin|geschaftsfuhrer|geschaftsfuhrerin|geschaftsfuhrung|geschaftsfuhrender gesellschafter|betriebsleiter|betriebsleiterin|leitung|direktor|direktorin|entscheidungen|entscheidet|betriebsinhaber|direktion|fuhrt|leitet|ubernimmt|ubernahm'.split(
    '|',
  ),
  ...'eigenaar|eigenaresse|directeur|directrice|directie|bedrijfsleider|beslissingen|beslist|leiding|leidt|neemt over|zaakvoerder'.split(
    '|',
  ),
  ...'propietario|propietaria|gerente|director general|directora general|directora|dueno|duena|encargado|decisiones|decide|direccion|dirige|lleva|al frente'.split(
    '|',
  ),
  ...'proprietaire|gerant|gerante|directeur general|dirigeant|dirigeante|president|presidente|patron|patronne|decisions|direction|dirige'.split(
    '|',
  ),
];
const MARKS_OF_SIZE = /^(?:m2|m3|kg|km|cm|mm|ha|eur|usd|gbp|chf|kw|mw|hl)$/;

/** What is counted or asked for first: the words from “how many” to the verb. */
const HEAD =
  /\b(?:how many|number of|wie viele|wieviele|anzahl(?: der)?|hoeveel|aantal|cuant[oa]s|numero de|combien de|combien d'|nombre de|quanti|quante|what year was the|when was the|when did they get their|which|welche[srn]?|welke?|quels?|quelles?|cuales?|que)\s+((?:[\p{L}-]+\s*){1,5})/u;
const VERB = new Set(
  'do does did have has had are is was were can they of in at for haben hat sind ist gibt hebben heeft zijn is tienen tiene son hay ont a sont y va get used'.split(
    ' ',
  ),
);

function headWords(wording: string): ReadonlySet<string> {
  const found = HEAD.exec(wording)?.[1]?.trim().split(/\s+/) ?? [];
  const end = found.findIndex((word) => VERB.has(word));
  return thingOf(end < 0 ? found : found.slice(0, end));
}

/** Of “guest rooms” the rooms are counted, not the guests. */
const thingOf = (words: readonly string[]): ReadonlySet<string> => new Set(words.slice(-1));

/** Gathers the cues of a question in one language. */
class CueMaker {
  readonly list: Cue[] = [];
  private readonly asked: Language;
  private readonly unit: string;
  private readonly seen = new Set<string>();

  constructor(
    private readonly question: Asked,
    private readonly language: Language,
  ) {
    this.asked = languageOf(wordsOf(question.wording));
    this.unit = question.type.kind === 'number' ? (question.type.unit ?? '') : '';
  }

  /** The words of the question itself: its unit, what it counts, what it speaks of. */
  asking(): void {
    const { wording } = this.question;
    const heads = headWords(fold(wording));
    const counted = thingOf(wordsOf(this.unit));
    for (const word of wordsOf(this.unit)) if (word.length > 1) this.ask(word, counted.has(word) ? 'head' : 'ask');
    for (const word of wordsOf(wording))
      if (word.length > 2 && !isSmall(word, this.asked) && !ASKING.has(word) && !/^\d/.test(word))
        this.ask(word, heads.has(word) ? 'head' : 'ask');
  }

  /** The words it was given, and those it has learnt. */
  given(): void {
    const { question } = this;
    // “since” or “opened” alone speaks of anything; a unit of measure stands with every figure of its kind.
    const measure = unitOf(this.unit);
    const weak = (phrase: string): boolean =>
      (measure !== undefined && unitOf(phrase) === measure) ||
      wordsOf(phrase).every((word) => word.length < 3 || WEAK.has(word) || LANGUAGES.some((each) => isSmall(word, each)));
    for (const phrase of question.words ?? []) this.put('word', phrase, [fold(phrase)], weak(phrase) ? 0.35 : 1);
    if (LEADING_ASKED.test(fold(question.wording))) for (const role of LEADING) this.put('word', role, [role], 0.6);
    for (const phrase of question.not ?? []) this.put('not', phrase, [fold(phrase)], 1);
    for (const { phrase, weight, isStanding } of question.learnt ?? [])
      if (isStanding !== true) this.put(weight > 0 ? 'for' : 'against', phrase, [fold(phrase)], Math.abs(weight));
  }

  options(): void {
    const { type, optionWords } = this.question;
    if (type.kind !== 'choice') return;
    for (const option of type.options) {
      this.put('option', option, [fold(option), ...(optionWords?.[option] ?? []).map((word) => fold(word))], 1, option);
      if (optionWords?.[option] === undefined) this.combined(option);
      // A part of an option, where the question itself does not say it: “order” of “order pending”.
      const parts = wordsOf(option).filter(
        (word) => word.length > 3 && !isSmall(word, this.asked) && !this.seen.has(stemOf(word, this.asked)),
      );
      if (parts.length > 0 && wordsOf(option).length > 1) this.put('option', option, parts, 0.5, option);
    }
  }

  private ask(word: string, role: CueRole): void {
    const key = stemOf(word, this.asked);
    if (this.seen.has(key) || MARKS_OF_SIZE.test(word)) return;
    this.seen.add(key);
    this.put(role, word, [word], 1);
  }

  private put(role: CueRole, says: string, own: readonly string[], weight: number, option?: string): void {
    const glosses = own.flatMap((word) => this.question.glosses?.[word] ?? []);
    const phrases = [...own, ...glosses].map((text) => this.stems(text)).filter((phrase) => phrase.length > 0);
    if (phrases.length === 0) return;
    const forms = option === undefined ? {} : { option, forms: new Set([...own, ...glosses]) };
    this.list.push({ role, says, phrases, own: own.length, weight, ...forms });
  }

  /** “night train” is a “tren de noche” and a “Nachtzug”: its words by a dictionary, in either order, apart or as one word. */
  private combined(option: string): void {
    const parts = wordsOf(option).filter((word) => word.length > 2 && !isSmall(word, this.asked));
    const [first, second] = parts.map((word) => [word, ...(this.question.glosses?.[word] ?? [])]);
    if (!first || !second || parts.length !== 2) return;
    const phrases = first
      .flatMap((a) => second.flatMap((b) => [`${a} ${b}`, `${b} ${a}`, `${a}${b}`, `${b}${a}`]))
      .map((text) => this.stems(text))
      .filter((phrase) => phrase.length <= 4);
    this.list.push({ role: 'option', says: option, phrases, own: 0, weight: 1, option, forms: new Set() });
  }

  private stems(text: string): readonly string[] {
    return wordsOf(text).map((word) => stemOf(word, this.language));
  }
}

/** What the words of a question look for on a page of the language. */
export class Cues {
  readonly list: readonly Cue[];
  private readonly byStem = new Map<string, [Cue, readonly string[], boolean][]>();
  private readonly inside: readonly [string, Cue, boolean][];

  constructor(question: Asked, language: Language) {
    const maker = new CueMaker(question, language);
    maker.asking();
    maker.given();
    maker.options();
    this.list = maker.list;
    const inside: [string, Cue, boolean][] = [];
    for (const cue of this.list)
      for (const [i, phrase] of cue.phrases.entries()) {
        const [first = ''] = phrase;
        const known = this.byStem.get(first);
        const entry: [Cue, readonly string[], boolean] = [cue, phrase, i < cue.own];
        if (known) known.push(entry);
        else this.byStem.set(first, [entry]);
        if (phrase.length === 1 && first.length >= 5 && (language === 'de' || language === 'nl')) inside.push([first, cue, i < cue.own]);
      }
    this.inside = inside;
  }

  /** Where the words of a text meet those of the question, each cue at most once a place. */
  hits(tokens: readonly Token[]): readonly Hit[] {
    const out: Hit[] = [];
    for (const [i, token] of tokens.entries()) {
      for (const [cue, phrase, own] of this.byStem.get(token.stem) ?? []) {
        const to = this.meets(tokens, i, phrase);
        if (to !== undefined) out.push({ cue, from: i, to, strength: own ? 1 : 0.7 });
      }
      if (token.folded.length < 7) continue;
      for (const [part, cue, own] of this.inside)
        if (token.stem !== part && (token.folded.startsWith(part) || token.stem.endsWith(part)))
          out.push({ cue, from: i, to: i + 1, strength: own ? 0.7 : 0.5, inside: true });
    }
    return out;
  }

  /** The end of the phrase that begins at a word, when its words follow with at most one other between two of them. */
  private meets(tokens: readonly Token[], at: number, phrase: readonly string[]): number | undefined {
    let next = at + 1;
    for (const stem of phrase.slice(1)) {
      if (tokens[next]?.stem === stem) next += 1;
      else if (tokens[next + 1]?.stem === stem) next += 2;
      else return undefined;
    }
    return next;
  }
}

/** The cues of a question in every language, made when first needed. */
export class CueBook {
  private readonly made = new Map<Language, Cues>();
  constructor(private readonly question: Asked) {}
  in(language: Language): Cues {
    let cues = this.made.get(language);
    if (!cues) this.made.set(language, (cues = new Cues(this.question, language)));
    return cues;
  }
}
