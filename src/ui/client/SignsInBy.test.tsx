/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import { SignsInBy } from './SignsInBy';

const SERVICES = [
  {
    name: 'Quayside',
    accounts: [
      { account: 'office@thornwick.example', problem: null },
      { account: 'south@thornwick.example', problem: 'Quayside says no' },
    ],
  },
];
const show = (change: { service?: string; user?: string; services?: typeof SERVICES; mayChange?: boolean }) =>
  render(
    <SignsInBy services={SERVICES} service="Quayside" user="Office@thornwick.example" mayChange onService={() => undefined} {...change} />,
  );

test('where there is no service, nothing is asked', () => {
  const { container } = show({ services: [], service: '' });
  expect(container.textContent).toBe('');
});

test('an account that was signed in says so; one that is shut says why, and the way', () => {
  show({});
  expect(screen.getByRole('status').textContent).toContain('office@thornwick.example is signed in at Quayside');
  show({ user: 'south@thornwick.example' });
  expect(screen.getAllByRole('status')[1]?.textContent).toContain('Quayside says no');
  expect(screen.getAllByRole('link', { name: 'Sign it in again' })[0]?.getAttribute('href')).toBe(
    '/session/with/Quayside?account=office%40thornwick.example',
  );
});

test('what is not kept yet is kept first; whoever may not change it is not led away', () => {
  show({ user: '' });
  expect(screen.getByRole('status').textContent).toContain('Keep it first');
  expect(screen.queryByRole('link')).toBeNull();
  show({ user: 'north@thornwick.example', mayChange: false });
  expect(screen.getAllByRole('status')[1]?.textContent).toContain('has not been signed in');
  expect(screen.queryByRole('link')).toBeNull();
});
