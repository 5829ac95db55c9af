import { catalogueOf, fieldKeySchema, type OwnField } from '../../fields';
import type { Library } from '../meaning/library';
import type { Line, Question } from '../tree/tree';

type FieldOfAnswer = Pick<OwnField, 'type' | 'unit' | 'options'>;

function fieldOf({ type }: Question): FieldOfAnswer {
  switch (type.kind) {
    case 'number':
      return type.unit === undefined ? { type: 'number' } : { type: 'number', unit: type.unit };
    case 'money':
      return { type: 'money', unit: type.currency };
    case 'choice':
      return { type: 'choice', options: [...type.options] };
    case 'text':
    case 'list':
    case 'yes/no':
    case 'year':
    case 'date':
      return { type: type.kind };
  }
}

/** Fields that the questions of a line would have, where there is none by their name yet: what is read is then kept on the record. */
export function fieldsAskedFor(line: Line, library: Pick<Library, 'fields'>): readonly OwnField[] {
  const { step } = line;
  if (step.verb !== 'read') return [];
  const record = step.target.text;
  if (record !== 'company' && record !== 'person') return [];
  const catalogue = catalogueOf(library.fields);
  return step.questions
    .filter(({ id }) => catalogue.of(record, id.text) === undefined && fieldKeySchema.safeParse(id.text).success)
    .map((question) => {
      const words = question.id.text.replace(/_/g, ' ');
      return {
        record,
        key: question.id.text,
        label: `${words.charAt(0).toUpperCase()}${words.slice(1)}`,
        ...fieldOf(question),
        group: 'Added by us',
        sample: '',
        words: [],
      };
    });
}
