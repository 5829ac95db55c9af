import { STANDARD, type Catalogue } from '../../fields';
import { condition, type Part } from '../parts/parts';
import { quote } from '../tree/notation';
import type { Arm, Line } from '../tree/tree';
import { verbOf } from '../verbs';

/** The line as a sentence in parts; fields are called as their business calls them. */
export function sayLine(line: Line, fields: Catalogue = STANDARD): readonly Part[] {
  return verbOf(line.step).say(line.step, fields);
}

export function sayArm(arm: Arm, fields: Catalogue = STANDARD): readonly Part[] {
  return arm.when ? [{ text: 'when', role: 'clause' }, condition(arm.when, fields)] : [{ text: 'else', role: 'clause' }];
}

/** The parts as one plain sentence. */
export function sentenceOf(parts: readonly Part[]): string {
  return parts.reduce((said, part) => (said === '' || part.text.startsWith(',') ? said : `${said} `) + part.text, '');
}

/** The replacement text for a part: quoted where the part is a name. */
export function partText(edit: NonNullable<Part['edit']>, typed: string): string {
  return edit.quoted ? quote(typed) : typed.trim();
}
