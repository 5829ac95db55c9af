import { DEMO_FIELDS } from '../../../testing/fields';
import { checkForm, formSchema } from '../../../core/intake';
import { addBelow, addPage, begin, change, FIRST_FORM, move, putQuestion, redo, removePage, takeOut, undo } from './form-draft';

const ids = (form: typeof FIRST_FORM) => form.pages.map((page) => page.questions.map((question) => question.id));

test('a new form is sound', () => {
  expect(formSchema.parse(FIRST_FORM)).toEqual(FIRST_FORM);
  expect(checkForm(FIRST_FORM, DEMO_FIELDS)).toEqual([]);
});

test('steps are taken back and forward, and a new step forgets what was taken back', () => {
  let draft = begin(FIRST_FORM);
  draft = change(draft, { ...FIRST_FORM, title: 'A' });
  draft = change(draft, { ...FIRST_FORM, title: 'B' });
  expect(undo(draft).form.title).toBe('A');
  expect(redo(undo(draft)).form.title).toBe('B');
  expect(redo(change(undo(draft), { ...FIRST_FORM, title: 'C' })).form.title).toBe('C');
  expect(undo(begin(FIRST_FORM)).form).toBe(FIRST_FORM);
});

test('questions are put in, changed, moved over pages and taken out; names stay free', () => {
  const added = addBelow(FIRST_FORM, { page: 0, at: 0 });
  expect(ids(added)).toEqual([['name', 'question_5', 'email', 'company', 'about']]);
  expect(checkForm(addBelow(added, { page: 0, at: 0 }), DEMO_FIELDS)).toEqual([]);
  const two = addPage(FIRST_FORM);
  const down = move(two, { page: 0, at: 3 }, 1);
  expect(ids(down.form)).toEqual([['name', 'email', 'company'], ['about']]);
  expect(down.place).toEqual({ page: 1, at: 0 });
  expect(ids(move(down.form, down.place, -1).form)).toEqual([['name', 'email', 'company', 'about'], []]);
  expect(move(two, { page: 0, at: 0 }, -1).form).toBe(two);
  expect(ids(move(two, { page: 0, at: 0 }, 1).form)[0]).toEqual(['email', 'name', 'company', 'about']);
  expect(ids(takeOut(FIRST_FORM, { page: 0, at: 2 }))).toEqual([['name', 'email', 'about']]);
  const [question] = FIRST_FORM.pages[0]?.questions ?? [];
  if (question)
    expect(putQuestion(FIRST_FORM, { page: 0, at: 0 }, { ...question, label: 'Who?' }).pages[0]?.questions[0]?.label).toBe('Who?');
});

test('a page goes, its questions stay', () => {
  const two = move(addPage(FIRST_FORM), { page: 0, at: 3 }, 1).form;
  expect(ids(removePage(two, 1))).toEqual([['name', 'email', 'company', 'about']]);
  expect(ids(removePage(two, 0))).toEqual([['name', 'email', 'company', 'about']]);
  expect(removePage(FIRST_FORM, 0)).toBe(FIRST_FORM);
});
