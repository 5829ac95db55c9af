import { budgetText, outsideFlows, shareGone, standsAt, typedBudget, type BudgetLine } from './budgets';

const line: BudgetLine = {
  kind: 'all',
  id: '',
  label: 'everything together',
  spentMicro: 30_000_000,
  reservedMicro: 10_000_000,
  limitMicro: 50_000_000,
};

test('an amount is read as people type it; nothing is no limit', () => {
  expect(['25', ' 2,50 ', '€ 40', '0'].map(typedBudget)).toEqual([25_000_000, 2_500_000, 40_000_000, 0]);
  expect(typedBudget('  ')).toBeNull();
  expect(['much', '-5', '1.234', '1e9'].map(typedBudget)).toEqual([undefined, undefined, undefined, undefined]);
  expect([budgetText(25_000_000), budgetText(2_500_000), budgetText(null)]).toEqual(['25', '2.50', '']);
});

test('what belongs to no flow is what is left', () => {
  const flow = { ...line, kind: 'flow' as const, id: 'f', spentMicro: 12_000_000 };
  expect(outsideFlows([line, { ...flow, kind: 'provider', id: 'p' }, flow])).toBe(18_000_000);
});

test('what is set aside counts as gone; four fifths and the end have their words', () => {
  expect(shareGone(line)).toBeCloseTo(0.8);
  expect(standsAt(line)).toEqual({ tone: 'brass', says: '80 % gone' });
  expect(standsAt({ ...line, reservedMicro: 0 })).toEqual({ tone: 'moss', says: '60 % gone' });
  expect(standsAt({ ...line, spentMicro: 50_000_000 })).toMatchObject({ says: 'used up' });
  expect(standsAt({ ...line, limitMicro: null })).toMatchObject({ says: 'no limit' });
  expect(standsAt({ ...line, limitMicro: 0 })).toMatchObject({ says: 'used up' });
});
