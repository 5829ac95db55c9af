import { fold, type Instant } from '../../base';
import { datesIn } from '../skills/dates';
import { figuresIn } from '../skills/figures';
import { ownWords, productsIn } from '../skills/names';
import { FORMER, OTHERS, PLANNED, WISHED } from '../skills/standing';
import { pointsBack, rowOf, type Candidate, type Said } from '../said';

const WHAT =
  'climate|temperatures?|humidity|vents?|ventilation|klima|temperatur\\w*|luftung|feuchte|klimaat|temperatuur|luchting|clima|temperatura|ventilacion|humedad|climat|humidite';
const DOES =
  'control\\w*|gobiern\\w*|regul\\w*|gestion\\w*|vigil\\w*|supervis\\w*|lleva|llevan|dirig\\w*|regle\\w*|gere|gerent|pilot\\w*|surveill\\w*|runs?|steer\\w*|monitor\\w*|watch\\w*|looks? after|looked after|keeps?|manage\\w*|regel\\w*|steuer\\w*|uberwach\\w*|stuur\\w*|bestuur\\w*|bewaak\\w*';
/** “Vents and screens answer to …”: what moves follows what runs it. */
const OBEYS =
  '\\b(?:vents?|screens?|windows|pipe rail|heating|houses?|luftung|schirme|luchting|schermen|ventilacion|pantallas|aerations?|ecrans)\\b.{0,40}\\b(?:answers?|obeys?|listens?|hort|horen|gehorch\\w*|luister\\w*|obedec\\w*|obeit|obeissent)\\b';
/** Something does something with the climate, in either order of words. */
const MINDS = `\\b(?:${WHAT})\\b.{0,40}\\b(?:${DOES})\\b|\\b(?:${DOES})\\b.{0,40}\\b(?:${WHAT})\\b`;
/** What controls a climate is called. */
const NAMES =
  /climate (?:computer|control|controller|system|management)|control room|\b\w*computers?\b|what runs the (?:place|houses?|glass|nursery)|control (?:system|computer|unit)|controllers?\b|controlled by|process computer|environment(?:al)? (?:computer|control)|(?:vents?|screens?|heating|climate|irrigation)\b.{0,40}\b(?:run|driven|controlled|managed|steered) by|klimacomputer|klimarechner|klimaregel|klimasteuer|klimafuhrung|gewachshaussteuerung|\bregelt\b|\bsteuert\b|gesteuert|geregelt|steuerung|regelung|klimaatcomputer|klimaatregel|klimaatsturing|\bgeregeld door|\bgestuurd door|regeltechniek|regelaar|procescomputer|ordenador (?:climatico|de clima)|control(?:ador)? (?:climatico|de clima)|controlador|computador de clima|control de clima|gestion(?:a|an|ado)? (?:el |del )?clima|ordinateur (?:climatique|de climat|de serre)|regulation|regulateur|gestion (?:climatique|du climat)|automate|pilot(?:e|ee|es|age)|computer climatico|centralina|regolazione|sterowa|komputer klimat|sterownik/;
const CONTROLS = new RegExp(`${NAMES.source}|${MINDS}|${OBEYS}`);
/** “We run on a …”: says it only of something that was put in, and not of a boiler. */
const RUNS_ON =
  /\b(?:we|wij|wir|nous) (?:now )?(?:run|work|draaien|werken|arbeiten|fahren|travaillons|tournons) (?:on|with|op|met|mit|auf|avec|sur) (?:an?|een|einem|einer|un|une)\b/;
const HEATS =
  /boiler|burner|\bgas\b|kessel|brenner|heiz|ketel|aardgas|wkk|bhkw|\bchp\b|warmte|heat|chaudiere|chauff|caldera|pump|packing|sorti/;
const runsOn = (folded: string): boolean => RUNS_ON.test(folded) && (INSTALLED.test(folded) || SWAPPED.test(folded)) && !HEATS.test(folded);
/** Controls of something else. */
const OTHER_CONTROLS =
  /pest control|biological control|quality control|weed control|disease control|cost control|access control|frost control|forklift|packing line|sorting|grading|kuhlung der lagerhalle|schadlings|pflanzenschutz|plaagbestrijding|kwaliteitscontrole|gewasbescherming|control biologico|control de plagas|control de calidad|lutte biologique|controle qualite|phone system|till system|ordering system|office|lift|lorr/;
const NONE =
  /\b(?:no|without(?: a)?|not have a|don't have a|kein\w*|ohne|geen|zonder|sin|ningun|no tenemos|pas d[e']|sans|aucun|nessun|senza|bez|nie ma\w*) (?:\w+ ){0,3}(?:climate|control|klima|steuer|regel|ordenador|ordinateur|regulation|computer|komputer|sterown)|\b(?:by hand|manually|von hand|manuell|handbediend|met de hand|handmatig|a mano|manualmente|a la main|manuellement|a mano|recznie)\b/;
/** A heading or label of a word or two says enough. */
const HEADED =
  /^(?:controls?|automation|climate|steuerung|regelung|regeltechnik|automatisierung|klima|besturing|automatisering|klimaat|control|automatizacion|clima|commande|automatisation|climat|conduite (?:du climat|climatique))$/;
const INSTALLED =
  /install|since|fitted|put in|dates? (?:from|back)|(?:from|of|von|van|de|aus) (?:19|20)\d\d|in use|commissioned|\((?:19|20)\d\d\)|years? old|for (?:the (?:last|past) )?\w+ years|from day one|from the (?:start|beginning)|von anfang an|vanaf het begin|desde el (?:principio|inicio)|des le debut|bought|came|arrived|renewed|kam\b|gekauft|erneuert|kwam|vernieuwd|comprad|renovad|achet|renouvel|z roku|roku \d|seit|eingebaut|baujahr|angeschafft|installiert|in betrieb|jahre alt|stammt|sinds|geplaatst|uit (?:19|20)\d\d|aangeschaft|bouwjaar|jaar oud|in gebruik|desde|instalad|instalo|montad|funciona|ano de|del ano|depuis|installe|mis en service|date de|mise en place|dal (?:19|20)\d\d|del (?:19|20)\d\d|installat|od (?:19|20)\d\d|zainstalow/;
/** Verbs by which a thing comes to its place. */
const PUT_IN = /put in|install|fitted|commissioned|\bcame\b|eingebaut|geplaatst|instal|montad|mise? en service/;
const SWAPPED =
  /replac|ersetz|abgelost|ausgetauscht|vervang|vervangen|sustitu|reemplaz|remplac|sostitui|zastap|upgraded from|switched from|moved from|umgestiegen|stieg(?:en)? (?:wir )?.{0,40}\bum\b|wechselte|overgestapt|stapte(?:n)? (?:we|wij|ze) over|changed from|cambiamos|sommes passes|passe de/;
/** The new one stands behind these words. */
const NEW_BEHIND = /\b(?:with|by|to|al|new|neuen?|nieuwe|nuevo|nouveau|nouvel|gegen|durch|auf|door|naar|por|par|con|przez|na)\b[^.]*$/;

/** Which product runs the climate, by name. */
export function controlsNamed(said: Said): readonly Candidate[] {
  const row = rowOf(said);
  const { text, folded } = said;
  const back = pointsBack(said);
  const cue = CONTROLS.exec(folded);
  const aboutIt =
    cue !== null ||
    runsOn(folded) ||
    (row !== undefined && HEADED.test(row.label)) ||
    HEADED.test(said.under) ||
    CONTROLS.test(said.under) ||
    (back !== undefined && CONTROLS.test(back.folded));
  if (!aboutIt || OTHER_CONTROLS.test(folded) || OTHERS.test(folded) || WISHED.test(folded)) return [];
  if (row && (CONTROLS.test(row.label) || HEADED.test(row.label))) return inRow(row.value, said);
  if (NONE.test(folded) || (back && NONE.test(back.folded))) return [];
  const taken = ownWords(said.url, said.title);
  // What is to be replaced is still there.
  const leaves = /to be replaced|will be replaced|soll ersetzt|wird ersetzt|vervangen worden|wordt vervangen|sera (?:remplac|sustitu)/.test(
    folded,
  );
  const swapped = SWAPPED.test(folded) && !leaves;
  const cues = [...folded.matchAll(new RegExp(runsOn(folded) ? `${CONTROLS.source}|${RUNS_ON.source}` : CONTROLS, 'g'))];
  return productsIn(text, taken).flatMap((name): Candidate[] => {
    const before = fold(text.slice(0, name.from));
    const behind = fold(text.slice(name.to));
    const from = before.length;
    const to = from + fold(name.text).length;
    const gap = Math.min(60, ...cues.map((found) => Math.max(0, Math.max(found.index - to, from - (found.index + found[0].length)))));
    if (!name.model && !(name.led || gap <= 2)) return [];
    if (!name.model && (name.opens || gap > 25)) return [];
    let score = (name.model ? 3 : 0.5) + (gap <= 3 ? 2 : gap <= 25 ? 1 : 0) + (name.led ? 0.5 : 0) + (INSTALLED.test(folded) ? 1 : 0);
    const clause = `${before.split(/[,;]/).at(-1) ?? ''} ${behind.split(/[,;]/)[0] ?? ''}`;
    if (swapped && !NEW_BEHIND.test(before)) score -= 4;
    if (swapped && /^\s*(?:with|by|gegen|durch|door|por|par)\b/.test(behind)) score -= 3;
    if (FORMER.test(clause) && !swapped) score -= 4;
    if (PLANNED.test(clause) && !leaves) score -= 4;
    return score < 2 ? [] : [{ value: name.text, score, said, date: said.date }];
  });
}

/** “Climate computer: Tessel 4 (2013)”. */
function inRow(value: string, said: Said): readonly Candidate[] {
  const named = (value.split(/[,;(]|\s[-–—]\s|\s(?:from|seit|since|desde|depuis|sinds|uit|van|de|aus|installed|dal)\s\d/)[0] ?? '').trim();
  const plain = named
    .replace(/\s(?:19|20)\d\d$/, '')
    .replace(/^(?:typ|type|modell?|model|marke|merk|marca|marque|fabrikat|make|fabricante)\s+(?=\S)/i, '')
    .trim();
  if (
    !/^[\p{Lu}\d“"]/u.test(plain) ||
    plain.length > 40 ||
    !/\p{L}/u.test(plain) ||
    /^(?:none|no|keine?r?|geen|ninguno|aucune?|nessuna?|brak|n\/a|-+)$/i.test(plain)
  )
    return [];
  return [{ value: plain, score: 6, said, date: said.date }];
}

/** Whether the sentence says that there is none: an answer to a person, and no name. */
export function saysNoControls(said: Said): boolean {
  return (
    CONTROLS.test(said.folded) &&
    NONE.test(said.folded) &&
    !OTHER_CONTROLS.test(said.folded) &&
    !OTHERS.test(said.folded) &&
    !FORMER.test(said.folded)
  );
}

const AGE = /(?:for|for the last|seit|sinds|desde hace|hace|depuis|il y a|da|vor|voor|al)?\s{0,3}$/;
const YEARS_BEHIND = /^[\s-]*(?:years?|jahre[n]?|jahrige[nrs]?|jaar|anos|ans|anni|lat)\b/;

const SINCE_THEN = /^(?:since then|ever since|seither|seitdem|sindsdien|desde entonces|depuis(?: lors)?)\b/;
const GONE =
  /\b(?:previous|old|last one|retired|retirement|gone|vorige[nr]?|alte[nr]?|ausgedient|ruhestand|vorige|oude|pensioen|viej[oa]|antiguo|jubil\w*|ancien|retraite|precedent)\b/;

/** Since when the controls have been there: a year said of them, or their age counted back from the day it was said. */
export function controlsSince(said: Said, now: Instant): readonly Candidate[] {
  const { folded } = said;
  const row = rowOf(said);
  const back = pointsBack(said);
  const about =
    CONTROLS.test(folded) || runsOn(folded) || (row !== undefined && HEADED.test(row.label))
      ? said
      : back && CONTROLS.test(back.folded)
        ? back
        : CONTROLS.test(said.under) || HEADED.test(said.under)
          ? said
          : undefined;
  if (!about || OTHER_CONTROLS.test(folded) || OTHERS.test(folded) || OTHERS.test(about.folded)) return [];
  if (NONE.test(about.folded) || WISHED.test(folded)) return [];
  const newsOfIt = SINCE_THEN.test(folded) && back !== undefined;
  const asRow = row !== undefined && (CONTROLS.test(row.label) || HEADED.test(row.label));
  if (!asRow && !newsOfIt && !INSTALLED.test(folded) && !SWAPPED.test(folded)) return [];
  const thisYear = new Date(now).getUTCFullYear();
  const cue = CONTROLS.exec(folded);
  const near = (from: number): number => (cue === null ? 20 : Math.abs(from - cue.index));
  // A piece of news: “our old one has gone. Since then a … runs it.”
  if (said.date !== null && back && SINCE_THEN.test(folded) && (GONE.test(back.folded) || FORMER.test(back.folded)))
    return [{ value: new Date(said.date).getUTCFullYear(), score: 3.5, said, date: said.date }];
  const years = datesIn(folded, said.date ?? now)
    .filter((date) => new Date(date.start).getUTCFullYear() <= thisYear && date.start > 0)
    .flatMap((date): Candidate[] => {
      const before = folded.slice(Math.max(0, date.from - 30), date.from);
      const clause = folded.slice(0, date.from).split(/[,;]/).at(-1) ?? '';
      if (/\b(?:until|till|bis|tot|hasta|jusqu'en|fino al|do)\s*$/.test(before)) return [];
      if (
        /\b(?:serviced|service|checked|updated|update|calibrated|gewartet|aktualisiert|onderhoud|bijgewerkt|revisad|actualizad|revise|mis a jour)\w*/.test(
          clause,
        )
      )
        return [];
      if (
        /\b(?:founded|established|built|grow(?:ing)?|house|gegrundet|gebaut|opgericht|gebouwd|fundad|construid|fonde|construit)\b/.test(
          clause,
        ) &&
        !CONTROLS.test(clause) &&
        !PUT_IN.test(clause)
      )
        return [];
      const led = /(?:since|in|from|of|install\w*|fitted|seit|aus|baujahr|sinds|uit|desde|de|en|depuis|dal|od|w)\s*$|\(\s*$/.test(before);
      const score = 4 + (led ? 1 : 0) - Math.min(2, near(date.from) / 60);
      return [{ value: new Date(date.start).getUTCFullYear(), score, said, date: said.date }];
    });
  if (years.length > 0) return years;
  // “Until 2016 … Then we replaced it”: the new one is of that year.
  const swappedIn =
    back && SWAPPED.test(folded) ? /\b(?:until|till|bis|tot|hasta|jusqu'en) ((?:19|20)\d\d)\b/.exec(back.folded)?.[1] : undefined;
  if (swappedIn !== undefined) return [{ value: Number(swappedIn), score: 3, said, date: said.date }];
  const saidIn = new Date(said.date ?? now).getUTCFullYear();
  return figuresIn(folded).flatMap((figure): Candidate[] => {
    if (!YEARS_BEHIND.test(folded.slice(figure.to)) || figure.value < 1 || figure.value > 60 || figure.value % 1 !== 0) return [];
    if (!AGE.test(folded.slice(0, figure.from))) return [];
    return [{ value: saidIn - figure.value, score: 3.5, said, date: said.date }];
  });
}
