import { withNumbers } from './numbers';
import type { Said } from './turns';

/** `15:00`, or “before 12:00” */
export function timeIn(said: Said): string | null {
  const folded = withNumbers(said.folded);
  if (/\bbefore noon|vor(?:mittags| zwolf)|voor de middag|antes del mediodia|avant midi\b/.test(folded)) return 'before 12:00';
  const found =
    /(?<!\d)(\d{1,2})(?:[:.h](\d{2}))? ?(?:uhr|uur|o'clock|heures?|h\b|pm|am|p\.m|a\.m)|(?<!\d)(\d{1,2}):(\d{2})(?!\d)|\b(?:at|um|om|a las|a) (\d{1,2})(?![\d.,]|\s?(?:%|th|st|nd|rd))\b/.exec(
      digits(folded),
    );
  if (!found) return null;
  const hour = Number(found[1] ?? found[3] ?? found[5]);
  if (hour > 24) return null;
  const pm =
    /\bpm|p\.m|afternoon|nachmittag|middag|tarde|apres-midi/.test(folded) ||
    (hour >= 1 && hour <= 7 && !/\bam\b|a\.m|morning|morgens|ochtend|manana|matin/.test(folded));
  return `${String(pm && hour < 12 ? hour + 12 : hour).padStart(2, '0')}:${found[2] ?? found[4] ?? '00'}`;
}

/** Hours in words. */
const digits = (folded: string): string => folded.replace(/\p{L}+/gu, (word) => (HOURS[word] === undefined ? word : String(HOURS[word])));

const HOURS: Readonly<Record<string, number>> = Object.fromEntries(
  [
    'one eins een una',
    'two zwei twee dos deux',
    'three drei drie tres trois',
    'four vier cuatro quatre',
    'five funf vijf cinco cinq',
    'six sechs zes seis',
    'seven sieben zeven siete sept',
    'eight acht ocho huit',
    'nine neun negen nueve neuf',
    'ten zehn tien diez dix',
    'eleven elf once onze',
    'twelve zwolf twaalf doce douze',
    'dreizehn dertien trece treize',
    'vierzehn veertien catorce quatorze',
    'funfzehn vijftien quince quinze',
    'sechzehn zestien dieciseis seize',
    'siebzehn zeventien diecisiete',
    'achtzehn achttien dieciocho',
  ].flatMap((words, i) => words.split(' ').map((word) => [word, i + 1] as const)),
);
