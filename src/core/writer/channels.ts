import { parsePhoneNumberFromString } from 'libphonenumber-js/min';
import type { FeelScope, FeelValue } from '../feel';

/** Ways to a reader. Mail leaves by itself; the others are tasks that a person does and says how they went. */
export const CHANNELS = ['e-mail', 'call', 'profile note', 'letter'] as const;
export type Channel = (typeof CHANNELS)[number];
export type HandChannel = Exclude<Channel, 'e-mail'>;
export const HAND_CHANNELS = ['call', 'profile note', 'letter'] as const satisfies readonly HandChannel[];

/** What a text is written for; texts without a word of it are mails. */
export const channelOf = (text: { readonly channel?: Channel | undefined }): Channel => text.channel ?? 'e-mail';
export const isByHand = (channel: Channel): channel is HandChannel => channel !== 'e-mail';

/** How long a new text of the channel may be, in characters: a note as short as most networks want it. */
export const USUAL_LENGTH: Readonly<Record<Channel, number>> = { 'e-mail': 900, call: 1200, 'profile note': 180, letter: 2500 };

const CHANNEL_WORDS: Readonly<Record<Channel, readonly [one: string, many: string]>> = {
  'e-mail': ['e-mail', 'e-mails'],
  call: ['call', 'calls'],
  'profile note': ['profile note', 'profile notes'],
  letter: ['letter', 'letters'],
};
/** “2 e-mails and 1 call”, in the order of the channels; channels without any are left out. */
export function countedChannels(channels: readonly Channel[]): string {
  const parts = CHANNELS.flatMap((channel) => {
    const n = channels.filter((other) => other === channel).length;
    return n === 0 ? [] : [`${n} ${CHANNEL_WORDS[channel][n === 1 ? 0 : 1]}`];
  });
  return parts.length < 2 ? (parts[0] ?? 'nothing') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;
}

const filled = (value: FeelValue | undefined): string | null => (typeof value === 'string' && value.trim() !== '' ? value.trim() : null);

/** Where the channel reaches a person: an address, a number, the lines of an envelope; null where it does not. A note is left where its name is found. */
export function reachOf(channel: Channel, person: FeelScope, company: FeelScope | null): string | null {
  switch (channel) {
    case 'e-mail':
      return filled(person.email);
    case 'call':
      return readable(filled(person.phone) ?? filled(person.mobile) ?? filled(company?.phone));
    case 'profile note':
      return filled(person.name);
    case 'letter':
      return envelope(person, company);
  }
}

/** A number as people read it: `+44 1632 960417`. */
const readable = (phone: string | null): string | null =>
  phone === null ? null : (parsePhoneNumberFromString(phone)?.formatInternational() ?? phone);

/** Where the post wants the postcode on a line of its own below the town (Universal Postal Union, addressing systems). */
const POSTCODE_BELOW = new Set(['GB', 'IE']);
const regions = new Intl.DisplayNames(['en'], { type: 'region', fallback: 'code' });
/** The last line of an address that goes abroad: the country in capitals, in a language of the post that sends it. */
const countryLine = (code: string): string => (/^[A-Z]{2}$/.test(code) ? (regions.of(code) ?? code) : code).toUpperCase();

function envelope(person: FeelScope, company: FeelScope | null): string | null {
  const [street, city] = [filled(company?.street), filled(company?.city)];
  if (company === null || street === null || city === null) return null;
  const [postcode, country] = [filled(company.postcode), filled(company.country)];
  const place = postcode === null ? [city] : POSTCODE_BELOW.has(country ?? '') ? [city, postcode] : [`${postcode} ${city}`];
  const lines = [filled(company.name), filled(person.name), street, ...place, country === null ? null : countryLine(country)];
  return lines.filter((line) => line !== null).join('\n');
}

/** What is missing where a channel does not reach somebody. */
export const NO_WAY: Readonly<Record<Channel, string>> = {
  'e-mail': 'there is no e-mail address to send to',
  call: 'there is no number to call',
  'profile note': 'there is no name to find a profile by',
  letter: 'there is no street and place for a letter',
};
