import { instantPaths, OPERATIONS, ROUTES, type Operation } from './index';

test('what the browser calls is what the operations are: npm run routes makes it anew', () => {
  expect(ROUTES).toEqual(
    Object.fromEntries(
      Object.entries(OPERATIONS as Readonly<Record<string, Operation>>).map(([id, { method, path, takesFile, answer }]) => {
        const instants = instantPaths(answer);
        return [id, { method, path, ...(takesFile === undefined ? {} : { takesFile }), ...(instants.length === 0 ? {} : { instants }) }];
      }),
    ),
  );
});
