/** What somebody can do and is allowed to, by their papers. */
import { sentencesOf } from '../../sentences';
import { NOT } from '../../skills/standing';
import { languageCodeOf, languageOf, levelOf } from '../languages';
import { listed, plainFold, type DocumentLine } from '../lines';
import { nothing, picked, type Picked } from '../picked';

const DRIVING =
  /driv(?:ing|er'?s?) licen[cs]e|(?:full|clean|valid|current) (?:uk |eu |gb |irish )?(?:driving )?licen[cs]e|licen[cs]e(?: classes?| categor(?:y|ies))? [a-e]\b|fuhrerschein|fahrerlaubnis|rijbewijs|(?:permiso|carnet|licencia) (?:de (?:conducir|conduccion|coche)|[abc]\d?\b)|permis(?: de conduire)?(?: [a-e]\d?\b|$|,)|permis de conduire/;
const NO_DRIVING =
  /(?:\bno\b|not hold|without|kein(?:en)?|ohne|geen|zonder|\bsin\b|no tengo|\bpas de\b|\bpas le\b|\bsans\b|provisional|noch nicht|nog niet|not yet|learning to drive|taking lessons|lessons|fahrschule|rijlessen|autoescuela|auto-ecole) ?(?:a |an |valid |full |clean |eigenen |driving )*(?:driv|fuhrer|fahrer|rij|permi|carnet|licen)|(?:licen[cs]e|fuhrerschein|rijbewijs|permis(?:o)?(?: de condu\p{L}+)?|carnet(?: de conducir)?|driving)\s*(?:[:(–-]\s*)?(?:no(?:ne|t yet)?\b|kein|noch nicht|geen|nee\b|nog niet|ninguno|sin\b|no tengo|non\b|aucun|pas\b|taking lessons|learning|in training|in (?:der )?ausbildung)/u;
const CERTIFICATE =
  /certificate|zertifikat|certificaat|certificado|certificat\b|\bticket\b|habilitation|staplerschein|befahigungsnachweis|\bcard\b/;
const SPEAKS = /\b(?:i )?(?:speak|spreche|spreek|hablo|parle)\b/;
/** Classes of driving licences (2006/126/EC) as they are written. */
const CLASS = /(?<![\p{L}\p{N}'-])(?:AM|A1|A2|A|B1|BE|B96|B|C1E|C1|CE|C|D1E|D1|DE|D|T|L)(?![\p{L}\p{N}'-])/gu;
const OLD_CLASS: Readonly<Record<string, string>> = { 'klasse 3': 'B', 'class 3': 'B' };

export function listOf(lines: readonly DocumentLine[], section: string): Picked {
  const own = lines.filter((line) => line.section === section && (!line.loose || line.bullet));
  const things = [...new Set(own.flatMap((line) => listed(line.text.replace(/^[^:,;]{2,30}:\s+/, ''))))].slice(0, 40);
  return things.length > 0 ? picked(things.join(', '), own.map((line) => line.text).join(' … '), 0.85) : nothing();
}

/** Skills one by one, as they are listed. */
export const skillsOf = (lines: readonly DocumentLine[]): readonly string[] =>
  [
    ...new Set(
      lines
        .filter((line) => line.section === 'skills' && (!line.loose || line.bullet))
        .flatMap((line) => listed(line.text.replace(/^[^:,;]{2,30}:\s+/, ''))),
    ),
  ].slice(0, 40);

export interface Spoken {
  /** ISO 639-1 */
  readonly code: string;
  /** its English name */
  readonly language: string;
  /** of the CEFR, else native, fluent, good or basic; undefined: not said */
  readonly level: string | undefined;
  readonly asWritten: string;
}

export function spokenBy(lines: readonly DocumentLine[]): {
  readonly spoken: readonly Spoken[];
  readonly listed: boolean;
  readonly quote: string;
} {
  const own = lines.filter((line) => line.section === 'languages');
  const said =
    own.length > 0
      ? own.map((line) => line.text)
      : lines.flatMap((line) => sentencesOf(line.text).filter((sentence) => SPEAKS.test(plainFold(sentence))));
  const rest =
    own.length > 0
      ? lines.flatMap((line) =>
          line.section === 'languages' ? [] : sentencesOf(line.text).filter((sentence) => SPEAKS.test(plainFold(sentence))),
        )
      : [];
  const out = new Map<string, Spoken>();
  const words: string[] = [];
  for (const text of [...said, ...rest]) {
    const before = out.size;
    for (const piece of listed(text.replace(/\t/g, ' ').replace(/ (?:and|und|en|y|et) /g, ', ')).flatMap((entry) =>
      entry.split(/\s\/\s|\.\s+(?=\p{Lu})/u),
    )) {
      const folded = plainFold(piece);
      const language = languageOf(folded);
      if (language === undefined || NOT.test(folded)) continue;
      if (out.get(language)?.level === undefined)
        out.set(language, { code: languageCodeOf(folded) ?? '', language, level: levelOf(folded), asWritten: piece.trim() });
    }
    if (out.size > before) words.push(text);
  }
  return { spoken: [...out.values()], listed: own.length > 0, quote: words.join(' … ') };
}

export function languagesOf(lines: readonly DocumentLine[]): Picked {
  const { spoken, quote } = spokenBy(lines);
  const all = spoken.map(({ language, level }) => (level === undefined ? language : `${language} (${level})`));
  return all.length === 0 ? nothing() : picked(all.join(', '), quote, 0.9);
}

/** The line that says whether somebody may drive. */
function drivingLine(lines: readonly DocumentLine[]): { readonly said?: DocumentLine; readonly denied?: DocumentLine } {
  const mine = lines.filter((line) => line.section !== 'jobs');
  const whole = (line: DocumentLine): string => (line.label === '' ? line.folded : `${line.label}: ${line.folded}`);
  const denied = mine.find((line) => NO_DRIVING.test(whole(line)));
  const said = mine.find(
    (line) =>
      line !== denied &&
      (DRIVING.test(whole(line)) ||
        (line.section === 'licences' &&
          /^(?:klasse |class(?:es)? |cat(?:egory|egorie)?\.? |clase |code )?[a-e]{1,2}\d?e?(?:(?: und | and | en | y | et |[ ,+/]+)[a-e]{1,2}\d?e?)*$/.test(
            line.folded,
          ))),
  );
  return { ...(said && { said }), ...(denied && { denied }) };
}

/** Classes of the driving licence, “B, BE”; a licence without a class is one for cars. Empty: none, or not said. */
export function classesOf(lines: readonly DocumentLine[]): { readonly classes: readonly string[]; readonly quote: string | null } {
  const { said, denied } = drivingLine(lines);
  if (!said || denied) return { classes: [], quote: denied?.text ?? null };
  // What stands in the next sentence is another thing.
  const text = sentencesOf(said.text).find((sentence) => DRIVING.test(plainFold(sentence))) ?? said.text;
  const old = Object.entries(OLD_CLASS).find(([words]) => said.folded.includes(words))?.[1];
  const small = /\bpermi[st]o? (?:de \w+ )?([a-d])\b/.exec(said.folded)?.[1]?.toUpperCase();
  const classes = [...new Set([...[...text.matchAll(CLASS)].map(([name]) => name), ...(small ? [small] : [])])].filter(
    (name) => !(name === 'A' && /^A (?:full|clean|valid|car|driving)/.test(text)),
  );
  return { classes: classes.length > 0 ? classes : [old ?? 'B'], quote: said.text };
}

export function licencesOf(lines: readonly DocumentLine[]): { readonly licences: Picked; readonly driving: Picked } {
  const { said, denied } = drivingLine(lines);
  const own = lines.filter(
    (line) =>
      line !== denied &&
      (line.section === 'licences' ||
        line === said ||
        (line.section !== 'jobs' && line.text.length <= 60 && CERTIFICATE.test(line.folded))),
  );
  const things = [...new Set(own.flatMap((line) => listed(line.text)))].slice(0, 20);
  return {
    licences: things.length > 0 ? picked(things.join(', '), own.map((line) => line.text).join(' … '), 0.85) : nothing(),
    driving: denied ? picked(false, denied.text, 0.9) : said ? picked(true, said.text, 0.9) : nothing(),
  };
}
