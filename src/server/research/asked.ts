import { fold } from '../../core/base';
import { isSmall, languageOf, type Asked, type Learnt } from '../../core/reader';
import type { Dictionary } from '../ports';

/** What is known of a question besides its name, type and wording. */
export interface Knowledge {
  readonly options?: readonly string[] | undefined;
  readonly optionWords?: Readonly<Record<string, readonly string[]>> | undefined;
  readonly words?: readonly string[] | undefined;
  readonly not?: readonly string[] | undefined;
  readonly months?: number | undefined;
  readonly least?: number | undefined;
  readonly learnt?: readonly Learnt[] | undefined;
}

const SHORTEST = 3;

/** A question with all that is known of it; its words, unit and options also as a dictionary calls them in other languages. */
export function askedWith(plain: Pick<Asked, 'id' | 'type' | 'wording'>, known: Knowledge = {}, dictionary: Dictionary): Asked {
  const type =
    plain.type.kind === 'text' && known.options && known.options.length > 0
      ? { kind: 'choice' as const, options: known.options }
      : plain.type;
  const unit = type.kind === 'number' ? (type.unit ?? '') : '';
  const words = [plain.wording, unit].flatMap((text) => fold(text).match(/[\p{L}\p{N}]+/gu) ?? []);
  const language = languageOf(words);
  const content = words.filter((word) => word.length >= SHORTEST && !isSmall(word, language));
  const options =
    type.kind === 'choice' ? type.options.filter((option) => known.optionWords?.[option] === undefined).map((option) => fold(option)) : [];
  const parts = options.filter((option) => option.includes(' ')).flatMap((option) => option.match(/[\p{L}\p{N}]{3,}/gu) ?? []);
  // By name: what is kept of a question has a name, a type and a wording of its own.
  const { optionWords, words: goesBy, not, months, least, learnt } = known;
  return {
    ...plain,
    type,
    glosses: dictionary.glosses([...content, ...options, ...parts], language),
    ...present({ optionWords, words: goesBy, not, months, least, learnt }),
  };
}

/** Without what is undefined. */
function present<T extends object>(value: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(value).filter(([, each]) => each !== undefined)) as { [K in keyof T]: Exclude<T[K], undefined> };
}
