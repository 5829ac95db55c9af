import { fold } from '../base';
import { sentencesOf } from '../reader';
import type { Complaint, DeliveryStatus } from './dsn';
import type { ReplyKind } from './kinds';
import { plain } from './plain';

/** What the heads of a mail say of it. */
export interface MailSigns {
  /** a mailing list or a mass mail: List-Id, List-Unsubscribe, Precedence */
  readonly listed: boolean;
  /** Disposition-Notification, RFC 8098 */
  readonly receipt: boolean;
  /** the answer of a calendar, RFC 5546 */
  readonly meeting: 'accepted' | 'declined' | 'tentative' | null;
  /** a filter on the way took it for spam */
  readonly suspect: boolean;
}
export const NO_SIGNS: MailSigns = { listed: false, receipt: false, meeting: null, suspect: false };

const SERVER = /^(?:mailer-daemon|postmaster|mail-daemon|maildelivery|mdaemon)\b/;
const NOT_DELIVERED =
  /\b(?:undeliver\w*|not delivered|could not be delivered|delivery (?:has )?failed|failure notice|returned mail|delivery status notification|unzustellbar\w*|nicht zugestellt|konnte nicht zugestellt|onbestelbaar\w*|niet bezorgd|niet worden bezorgd|non remis|non distribue\w*|n'a pas pu etre (?:remis|distribue|livre)|no (?:se )?(?:ha )?(?:podido )?entregad?o?|no entregado|devuelto)\b/;
const DELAYED =
  /\b(?:delayed|delay(?:ed)? delivery|will (?:keep|continue) (?:trying|to (?:try|retry))|still being retried|warning: (?:message|could)|not yet been delivered|verzogert|wird weiter(?:hin)? versucht|vertraagd|retarde|differe\w*|retrasad[oa]|se seguira intentando)\b/;
const FULL =
  /\b(?:mailbox (?:is )?full|over ?quota|quota exceeded|exceeded (?:the |its )?(?:storage|quota)|insufficient storage|postfach (?:ist )?voll|uberfullt|mailbox (?:is )?vol|boite (?:aux lettres )?pleine|buzon (?:esta )?lleno|4\.\d\.\d)\b/;
const AWAY =
  /\b(?:out of (?:the )?office|on (?:annual |parental |maternity |sick )?leave|on (?:holiday|vacation|a course|the road)|away (?:from|until|till)|am away|not (?:at (?:the|my) (?:desk|office|\w+ (?:this|next))|in the office)|(?:limited|no) access to (?:my )?(?:e-?mail|mail)|back (?:on|in the office|at)|return(?:ing)? (?:on|to the office)|visiting \w+|abwesen\w*|nicht (?:im (?:buro|haus|betrieb|hause)|am platz|erreichbar)|im urlaub|in (?:elternzeit|mutterschutz)|wieder (?:erreichbar|da|im)|afwezig\w*|niet (?:aanwezig|op kantoor|bereikbaar)|(?:met|op) vakantie|met verlof|zonder laptop|weer (?:bereikbaar|aanwezig|terug)|absent\w*|en (?:conges?|vacances|deplacement)|de retour|ausente|fuera de (?:la |mi )?oficina|de vacaciones|no tendre acceso|de vuelta|me reincorpor\w+)\b/;
const RECEIVED =
  /\b(?:(?:has been|was|have) received|we have received|thank you for (?:contacting|your (?:message|mail|e-?mail|enquiry|inquiry))|(?:automatic|automated) (?:confirmation|reply|response|message)|(?:request|ticket|case|reference) (?:number|no\.?|id)?\s{0,3}[#(]?[a-z-]{0,6}\d{3}|given the number|we (?:aim|will|shall) (?:to )?(?:answer|reply|respond|get back)|ist (?:bei uns )?eingegangen|haben ihre (?:anfrage|nachricht|mail) erhalten|eingangsbestatigung|vorgangsnummer|automatische (?:antwort|bestatigung)|(?:is|hebben we|hebben) (?:goed )?ontvangen|ontvangstbevestiging|automatisch (?:bericht|antwoord)|avons bien recu|accuse de reception|reponse automatique|hemos recibido|acuse de recibo|respuesta automatica)\b/;
const RECEIPT =
  /^(?:read|gelesen|gelezen|lu|leido|return receipt|read receipt|lesebestatigung|leesbevestiging|accuse de lecture|confirmacion de lectura)\s?:/;
const OPENED =
  /\b(?:was (?:read|displayed|opened)|has been (?:read|displayed)|wurde (?:gelesen|geoffnet|angezeigt)|is gelezen|a ete (?:lu|ouvert|affiche)|ha sido (?:leido|mostrado))\b/;
const INVITED: readonly (readonly [RegExp, ReplyKind])[] = [
  [/^(?:accepted|zugesagt|angenommen|geaccepteerd|accepte\w*|aceptad[oa])\s?:/, 'meeting accepted'],
  [/^(?:declined|abgelehnt|abgesagt|geweigerd|afgewezen|refuse\w*|rechazad[oa])\s?:/, 'meeting declined'],
];
const CIRCULAR =
  /\b(?:newsletter|view (?:this|it) (?:in|online)|im browser ansehen|bekijk (?:deze|online)|voir en ligne|ver en (?:el )?navegador|unsubscribe|abmelden|uitschrijven|se desabonner|darse de baja)\b/;
const ADVERTISES =
  /\b(?:(?:guest|sponsored) post|seo|backlinks?|rank(?:ing)? (?:higher|on)|first page of|page one|following up on my (?:last|previous|earlier)|free audit|b2b (?:list|leads|data)|(?:increase|boost|grow) your (?:sales|traffic|revenue)|(?:web|app) (?:design|development) (?:services|company)|crypto\w*|bitcoin|loan|casino|viagra|lottery|inheritance|wire transfer|million (?:dollars|usd|euro)|limited time offer|act now|click (?:here|the link) (?:now|below)|verify your (?:account|mailbox)|mailbox (?:will be|has been) (?:deactivated|suspended)|beneficiary)\b/;

interface Given {
  readonly subject: string;
  readonly text: string;
  readonly from: string;
  readonly autoSubmitted: boolean;
  readonly signs: MailSigns;
  readonly status: DeliveryStatus | undefined;
  readonly complaint: Complaint | undefined;
  /** whether it belongs to a conversation of ours */
  readonly ours: boolean;
}

/** Whether the heads or parts of a mail say that a machine sent it; words alone may be a person's. */
export const byHeads = ({ autoSubmitted, signs, status, complaint, from, ours }: Omit<Given, 'subject' | 'text'>): boolean =>
  autoSubmitted ||
  status !== undefined ||
  complaint !== undefined ||
  signs.receipt ||
  signs.meeting !== null ||
  (signs.listed && !ours) ||
  SERVER.test(fold(from).replace(/^.*</, ''));

/** What a machine's mail is, told by its heads first and its words second; undefined for what a person wrote. */
export function machineKind({ subject, text, from, autoSubmitted, signs, status, complaint, ours }: Given): ReplyKind | undefined {
  if (complaint) return 'complaint';
  const head = fold(subject).trim();
  const folded = fold(text.slice(0, 4000));
  if (signs.receipt || RECEIPT.test(head) || (OPENED.test(folded) && folded.length < 600 && !status)) return 'read receipt';
  if (status) {
    if (status.action === 'delayed' || (!status.hard && DELAYED.test(`${head} ${folded}`))) return 'delayed';
    return status.hard && !FULL.test(`${folded} ${fold(status.diagnostic ?? '')}`) ? 'bounce' : 'soft bounce';
  }
  if (SERVER.test(fold(from).replace(/^.*</, ''))) {
    if (DELAYED.test(`${head} ${folded}`)) return 'delayed';
    if (NOT_DELIVERED.test(`${head} ${folded}`)) return FULL.test(folded) ? 'soft bounce' : 'bounce';
  }
  if (signs.meeting === 'accepted' || signs.meeting === 'tentative') return 'meeting accepted';
  if (signs.meeting === 'declined') return 'meeting declined';
  const invited = INVITED.find(([pattern]) => pattern.test(head));
  if (invited) return invited[1];
  if (signs.suspect) return 'spam';
  const away = AWAY.test(`${head} ${folded}`);
  const received = RECEIVED.test(`${head} ${folded}`);
  if (autoSubmitted || AUTOMATIC.test(head))
    return away && !(received && !AWAY.test(head) && TICKET.test(folded))
      ? 'out of office'
      : received
        ? 'automatic receipt'
        : away
          ? 'out of office'
          : 'automatic receipt';
  if (received && TICKET.test(folded)) return 'automatic receipt';
  if (!ours && ADVERTISES.test(`${head} ${folded}`)) return 'spam';
  // What answers a mail of ours is no circular, whatever a gateway put on it.
  if (!ours && (signs.listed || (CIRCULAR.test(folded) && folded.length > 400))) return 'bulk';
  return undefined;
}
const AUTOMATIC =
  /^(?:(?:automatic|auto)[- ]?(?:reply|response|antwort)|out of (?:the )?office|automatische (?:antwort|antwoord)|abwesenheit\w*|afwezig\w*|automatisch antwoord|reponse automatique|absence|respuesta automatica|fuera de la oficina)/;
const TICKET = /\b(?:ticket|case|request|vorgang|anfrage|reference|number|nummer|numero)\b[^.\n]{0,30}\d{3,}|\((?:\d{4,})\)|##-/;

/** Words of a person who is away, without a machine's heads: “I'm not in this week, back on Thursday”. */
export const saysAway = (text: string): boolean =>
  sentencesOf(text).some((sentence) => {
    const folded = plain(sentence);
    return AWAY.test(folded) && ONESELF.test(folded) && !sentence.trimEnd().endsWith('?');
  });
const ONESELF =
  /(?<![\p{L}])(?:i'm|i am|i will|i'll|we are|we're|ich bin|wir sind|ik ben|ik zit|we zijn|estoy|estamos|estare|je suis|nous sommes|je serai)(?![\p{L}])/u;
