import type { Thing, ThingKind } from './thing';

interface Known {
  readonly mailboxes: readonly string[];
  readonly texts: readonly string[];
  readonly providers: readonly string[];
}
type BodyOf<K extends ThingKind> = Extract<Thing, { readonly kind: K }>['body'];

const BEGINNINGS: { readonly [K in ThingKind]: (name: string, known: Known) => BodyOf<K> } = {
  scorecard: (name) => ({
    name,
    target: 'company',
    criteria: [{ id: 'c1', text: 'site is known', levels: [{ when: 'company.website != null', points: 10 }], whenUnknown: 0 }],
    disqualifiers: [],
    bands: [
      { name: 'hot', from: 8 },
      { name: 'warm', from: 5 },
      { name: 'cold', from: 0 },
    ],
  }),
  template: (name) => ({
    name,
    language: 'en',
    subject: 'A word to {company.name or "you"}',
    body: 'Hello {first_name or "there"},\n\n{personal line}\n\nWould twenty minutes next week suit you?\n\nKind regards\n{sender.name}',
    personal: { fields: [], required: false, lines: [] },
    maxLength: 900,
  }),
  plan: (name, known) => ({
    name,
    mailbox: known.mailboxes[0] ?? 'mail',
    touches: [{ day: 0, template: known.texts[0] ?? 'First words' }],
    hours: { from: '09:00', to: '17:00' },
  }),
  pipeline: (name) => ({ name, stages: ['First talk', 'Offer', 'Won', 'Lost'] }),
  chain: (name, known) => ({ name, field: 'email', providers: [{ name: known.providers[0] ?? 'a connection', priceMicro: 0 }] }),
  answer: (name) => ({
    name,
    about: 'price',
    asks: [],
    when: '',
    texts: [{ language: 'en', body: 'That is a fair point. Which part of it matters most to you?' }],
    notSay: [],
  }),
};

/** What a new thing of a kind begins with: whole enough to be kept, empty enough to be filled. */
export const beginningOf = (kind: ThingKind, name: string, known: Known): Thing =>
  // A kind and the body made for it belong together, which TypeScript cannot see in a union.
  ({ kind, body: BEGINNINGS[kind](name, known) }) as Thing;
