/** A trip of one grower’s person through the engine, as its tests begin it. */
import type { Answer, RecordView, Trip, TripEvent } from '../core/engine';

export const NOW = Date.parse('2026-11-24T10:00:00Z');
export const VIEW: RecordView = {
  person: { id: 'p1', name: 'Mara Quill', first_name: 'Mara', email: 'm.quill@oakmere-glass.example', phone: null, status: null },
  company: {
    id: 'c1',
    name: 'Oakmere Glass',
    website: 'oakmere-glass.example',
    heated_area: 4.2,
    all_year: true,
    controls_since: 2010,
    expansion: true,
    country: 'GB',
    service_contract: null,
  },
  deal: null,
};
export const trip = (more: Partial<Trip> = {}): Trip => ({
  id: 't1',
  trial: false,
  record: { kind: 'person', id: 'p1' },
  at: 0,
  part: 0,
  state: { kind: 'ready' },
  vars: {},
  seq: 0,
  tries: 0,
  dealId: null,
  ...more,
});
export const go: TripEvent = { kind: 'go' };
export const compose: Extract<Answer, { kind: 'compose' }> = {
  kind: 'compose',
  facts: [
    {
      id: 'f1',
      field: 'heated_area',
      value: 4.2,
      quote: '4.2 hectares of heated glass',
      url: 'http://oakmere-glass.example/about',
      source: 'site',
      confidence: 0.9,
    },
  ],
  recentLines: [],
  sender: { name: 'Tomasz Wierzba' },
  doNotContact: false,
};
