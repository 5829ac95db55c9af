import type { Said } from '../said';
import { tokenAt } from '../tokens';
import type { Candidate } from './candidate';

const MAIL =
  /[a-z0-9][a-z0-9._%+-]{0,63}(?:@|\s?[([{]\s?(?:at|arroba|ät|a)\s?[)\]}]\s?)[a-z0-9-]{1,63}(?:(?:\.|\s?[([{]\s?(?:dot|punkt|punto|point)\s?[)\]}]\s?)[a-z0-9-]{1,63}){1,4}/g;
const PHONE = /(?:\+|00|\(0|\b0)[\d\s()/.-]{6,22}\d/g;
const GENERAL =
  /^(?:info|post|hello|hallo|hola|bonjour|contact|kontakt|contacto|office|buro|mail|enquiries|reception|rezeption|recepcion|accueil|welcome|team)/;
const SPECIAL =
  /^(?:jobs?|career|bewerbung|personal|press\w*|presse|privacy|datenschutz|dpo|invoice|rechnung|facturen|accounts?|buchhaltung|abuse|hostmaster|webmaster|noreply|no-reply|newsletter|shop|sales)/;

/** E-mail addresses, also those written so that programs do not find them, or phone numbers. */
export function contactsIn(said: Said, wording: string): readonly Candidate[] {
  const phone = /\b(?:phone|telephone|tele\w+)\b/.test(wording);
  return [...said.folded.matchAll(phone ? PHONE : MAIL)].map((found) => {
    const value = phone
      ? found[0].trim()
      : found[0]
          .replace(/\s?[([{]\s?(?:at|arroba|ät|a)\s?[)\]}]\s?/, '@')
          .replace(/\s?[([{]\s?(?:dot|punkt|punto|point)\s?[)\]}]\s?/g, '.');
    const host = value.split('@')[1] ?? '';
    return {
      value,
      said,
      from: tokenAt(said.tokens, found.index),
      to: tokenAt(said.tokens, found.index + found[0].length),
      marks: {
        general: GENERAL.test(value) ? 1 : 0,
        special: SPECIAL.test(value) ? 1 : 0,
        ownHost: host !== '' && said.url.includes(host) ? 1 : 0,
      },
    };
  });
}
