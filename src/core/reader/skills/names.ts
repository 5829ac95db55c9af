import { fold } from '../../base';

/** A word of a text with its place. */
interface Token {
  readonly text: string;
  readonly folded: string;
  readonly from: number;
  readonly to: number;
  /** what stands between it and the next word */
  readonly gap: string;
}

function tokensOf(text: string): readonly Token[] {
  const found = [...text.matchAll(/[\p{L}\p{N}][\p{L}\p{N}'’.-]*[\p{L}\p{N}]|[\p{L}\p{N}]/gu)];
  return found.map((match, i) => ({
    text: match[0],
    folded: fold(match[0]),
    from: match.index,
    to: match.index + match[0].length,
    gap: text.slice(match.index + match[0].length, found[i + 1]?.index ?? text.length),
  }));
}

const set = (...words: readonly string[]): ReadonlySet<string> => new Set(words.flatMap((list) => list.split(' ')));

/** Capitalised words that are no part of anybody's or any product's name: folded. */
const ORDINARY = set(
  'the our we in since it a an all both every this these their his her they and but from at on for with by of to as is are was were you your us there here when while after before today now if not no only also one two three four five six',
  'zwei drei vier funf dos tres cuatro cinco deux trois quatre cinq twee drie vier vijf due tre quattro dwa trzy',
  'alle unsere unser unseren unserem unserer wir seit die der das den dem des ein eine einen einem einer im in mit und oder bei auf aus zu zum zur von vom fur uber unter nach vor ist sind war wird werden hat haben ihr ihre sie es er auch nur seine sein',
  'de het een onze ons wij we sinds in op met en of bij uit naar van voor over onder is zijn was wordt heeft hebben hun zij hij ook alleen',
  'nuestro nuestra nuestros nuestras el la los las un una unos unas desde con y o en por para sobre de del al es son fue tiene tenemos su sus se lo',
  'notre nos le la les un une des depuis avec et ou en dans par pour sur de du au aux est sont etait a avons son sa ses se ce cette',
  'il lo gli i un uno una dal con e o nel nella per di del della e sono nasz nasze nasza od z i oraz w na do jest',
  'january february march april may june july august september october november december januar februar marz mai juni juli oktober dezember januari februari maart mei augustus enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre janvier fevrier mars avril juin juillet aout octobre novembre decembre',
  'monday tuesday wednesday thursday friday saturday sunday spring summer autumn winter',
  'jahr jahre jahren monat montag dienstag mittwoch donnerstag freitag samstag sonntag abteilung standort standorte entscheidung entscheidungen einkauf fragen kontakt ansprechpartner verantwortlich team familie haus hauser betrieb',
  'house houses unit units zone zones phase line hall page section chapter table figure level type model site sites firma firm company marke merk typ modell fabrikat hersteller marca modelo marque brand make maker investment investments technology decisions decision purchasing contact questions family home news about',
);

/** Words for what somebody is: they stand beside a name and are none. */
const ROLES = set(
  'owner owners founder founders director directors manager managers head chief managing technical general operations operational commercial sales marketing production plant site executive officer chairman chairwoman chair president partner partners proprietor foreman supervisor engineer technician buyer assistant finance financial ceo cto coo cfo md energy maintenance',
  'inhaber inhaberin geschaftsfuhrer geschaftsfuhrerin geschaftsfuhrung leiter leiterin betriebsleiter betriebsleiterin technischer technische produktionsleiter produktionsleiterin meister chef chefin eigentumer eigentumerin seniorchef juniorchef leitung vertrieb vertriebsleiter energiemanager einkaufsleiter einkaufsleiterin prokurist',
  'eigenaar eigenaresse directeur bedrijfsleider algemeen hoofd technisch manager inkoper verkoop verkoopleider ondernemer ondernemers zaakvoerder vennoot',
  'propietario propietaria dueno duena gerente director directora jefe jefa tecnico tecnica encargado encargada general comercial responsable compras produccion administrador administradora socio socia fundador fundadora',
  'proprietaire gerant gerante dirigeant dirigeante directeur directrice responsable technique chef exploitant exploitante president presidente achats associe associee fondateur fondatrice',
  'titolare direttore direttrice amministratore responsabile wlasciciel wlascicielka dyrektor kierownik prezes',
);
const TITLES = set(
  'dr ir ing prof mr mrs ms miss herr herrn frau dhr mevr meneer mevrouw don dona sr sra senor senora m mme mlle monsieur madame sig signor pan pani dipl.-ing dipl',
);
const PARTICLES = set('van der den de von zu la le los las du ter ten el y di della del dos da af');
const COMPANY_ENDS = set('ltd limited gmbh kg gbr ag bv b.v nv n.v sl s.l sa s.a srl s.r.l sarl sas ab as a.s aps inc llp plc oy sp');

export interface Name {
  readonly text: string;
  readonly from: number;
  readonly to: number;
}

/** Long words that end in one: “Betriebsinhaber”. */
const ROLE_ENDS = /(?:inhaber|leiter|chef|meister|fuhrer|gesellschafter|direktor|vorsitzende[rn]?|eigenaar|leider|fuhrende[rn]?)(?:in)?$/;
/** “Directeur-eigenaar” is two of them. */
const isRole = (folded: string): boolean => folded.split('-').every((part) => ROLES.has(part) || ROLE_ENDS.test(part));
const capital = (token: Token): boolean => /^\p{Lu}/u.test(token.text);
const plainGap = (gap: string): boolean => /^\.?[ \u00a0]$/.test(gap);

/** Names of people in a text: two to five words, titles and roles left off. `taken`: folded words of firms and places that are no person. */
export function peopleIn(text: string, taken: ReadonlySet<string>): readonly Name[] {
  const out: Name[] = [];
  let run: Token[] = [];
  const close = (next: Token | undefined): void => {
    while (run.length > 0 && PARTICLES.has(run.at(-1)?.folded ?? '')) run.pop();
    const [first] = run;
    const last = run.at(-1);
    const proper = run.filter((token) => capital(token));
    const firm = next !== undefined && COMPANY_ENDS.has(next.folded);
    if (first && last && !firm && proper.length >= 2 && run.length <= 6 && !proper.every((token) => taken.has(token.folded)))
      out.push({ text: text.slice(first.from, last.to), from: first.from, to: last.to });
    run = [];
  };
  for (const token of tokensOf(text)) {
    const before = run.at(-1);
    if (before && !plainGap(before.gap)) close(undefined);
    const isName =
      capital(token) &&
      /^\p{Lu}[\p{L}'’-]*$|^\p{Lu}\.$/u.test(token.text) &&
      !/^\p{Lu}{3,}$/u.test(token.text) &&
      !isRole(token.folded) &&
      !TITLES.has(token.folded) &&
      !COMPANY_ENDS.has(token.folded) &&
      (!ORDINARY.has(token.folded) || (run.length > 0 && token.text.length === 1));
    if (isName) run.push(token);
    else if (run.length > 0 && PARTICLES.has(token.folded)) run.push(token);
    else close(token);
  }
  close(undefined);
  return out;
}

export interface ProductName extends Name {
  /** it carries a number of type or a Roman numeral, as few words of speech do */
  readonly model: boolean;
  /** a small word stands before it (“a”, “von”), or it is in quotation marks */
  readonly led: boolean;
  /** it opens the sentence, where every word has a capital */
  readonly opens: boolean;
}

const MODEL = /^(?:\p{Lu}{0,3}-?\d{1,4}\p{Lu}?|\p{Lu}|[IVX]{1,4}|\p{Lu}\d{1,3}|One|Two|Three|Four|Five|Six|Seven|Eight|Nine|Ten)$/u;
const LEADS = set(
  'a an the by from our with ein eine einen einem von vom der marke typ modell fabrikat een van het type merk un una el de marca modelo une du marque modele le la dal un di marca typu firmy called named brand model make',
);

/** Names a product may have: capitalised words, perhaps with a number of type. Years and numbered houses are none. */
export function productsIn(text: string, taken: ReadonlySet<string>): readonly ProductName[] {
  const tokens = tokensOf(text);
  const out: ProductName[] = [];
  for (let i = 0; i < tokens.length; i++) {
    const first = tokens[i];
    if (!first || !capital(first) || MODEL.test(first.text) || !nameable(first, taken)) continue;
    let end = i;
    for (let next = tokens[end + 1]; next && plainGap(tokens[end]?.gap ?? '') && end - i < 3; next = tokens[end + 1]) {
      if (MODEL.test(next.text) && !/^(?:19|20)\d\d$/.test(next.text) && !/^\s*(?:ha|m²|m2|%|°|m\b|kw)/i.test(next.gap)) {
        end++;
        break;
      }
      if (!capital(next) || !nameable(next, taken)) break;
      end++;
    }
    const last = tokens[end] ?? first;
    const previous = tokens[i - 1];
    out.push({
      text: text.slice(first.from, last.to),
      from: first.from,
      to: last.to,
      model: end > i && MODEL.test(last.text),
      led: (previous !== undefined && LEADS.has(previous.folded)) || /[“"„«‘']$/.test(text.slice(0, first.from)),
      opens: previous === undefined || /[.!?:]\s*$/.test(text.slice(0, first.from)),
    });
    i = end;
  }
  return out;
}

function nameable(token: Token, taken: ReadonlySet<string>): boolean {
  return (
    token.text.length > 1 &&
    !ORDINARY.has(token.folded) &&
    !isRole(token.folded) &&
    !TITLES.has(token.folded) &&
    !COMPANY_ENDS.has(token.folded) &&
    !taken.has(token.folded)
  );
}

/** Words of a host name and a title, by which a firm's own name is told from other names. */
export function ownWords(url: string, title: string): ReadonlySet<string> {
  const host = url.replace(/^https?:\/\/(?:www\.)?/, '').split('/')[0] ?? '';
  return new Set([...host.split(/[.-]/), ...(title.match(/[\p{L}\p{N}]+/gu) ?? [])].filter((word) => word.length > 2));
}
