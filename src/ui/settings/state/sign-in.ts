import type { SignInServiceView } from '../../../api';
import { scopesOf, serviceProblems, type SignInService } from '../../../core/sign-in';

/** What a new one begins with. */
export const NEW_SERVICE: SignInService = {
  name: '',
  issuer: 'https://',
  clientId: '',
  mailScopes: '',
  forPeople: true,
  privateNetwork: false,
};

/** What is wrong with a gap that was touched: an empty form is not scolded. */
export function problemAt(service: SignInService, first: SignInService, isNew: boolean, at: keyof SignInService): string | undefined {
  if (isNew && service[at] === first[at]) return undefined;
  return serviceProblems(service).find((problem) => problem.at === at)?.says;
}

export const isWhole = (service: SignInService): boolean => serviceProblems(service).length === 0;

/** What a service is for, in a few words. */
export function usedFor({ service, usedBy }: SignInServiceView): string {
  const parts = [...(service.forPeople ? ['people come in by it'] : []), ...(scopesOf(service).length > 0 ? ['mailboxes open by it'] : [])];
  return `${parts.join(' · ') || 'not in use'}${usedBy.length > 0 ? `: ${usedBy.join(', ')}` : ''}`;
}
