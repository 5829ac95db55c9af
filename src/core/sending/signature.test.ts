import { withSignature } from './signature';

test('it stands behind the line that mail programs know it by, and nowhere when there is none', () => {
  expect(withSignature('Hello Mara,\n\nKind regards\nInes\n', ' Thornwick Controls\n4 Quay Lane, Hull ')).toBe(
    'Hello Mara,\n\nKind regards\nInes\n\n-- \nThornwick Controls\n4 Quay Lane, Hull\n',
  );
  expect(withSignature('Hello', ' \n')).toBe('Hello');
});
