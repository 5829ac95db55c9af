import { judgeBook } from './answers';

test('no sentence of a draft is held by nothing, and few questions that the book answers are left out', () => {
  const { of, right, leftOut, wrong, loose } = judgeBook('evaluation/answers/book.json', (question) => !question.aside);
  expect(loose).toBe(0);
  expect(right + leftOut + wrong).toBe(of);
  expect(leftOut / of).toBeLessThan(0.1);
});
