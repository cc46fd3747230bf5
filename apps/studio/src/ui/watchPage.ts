import { Problem } from '@uvrex/core';
import { sayProblem } from '@/state/toasts';

const refused = (directive: string, uri: string): Problem =>
  new Problem(
    `The page's security policy refused something (${directive}${uri ? `: ${uri.slice(0, 80)}` : ''}), and it does not work.`,
    'Reload the page. Where it happens again, report it: this is a defect of Uvrex or of a browser extension.',
  );

/** Shows what would fail in silence: refusals by the policy, and promises whose failure nothing handles. Returns how to stop. */
export function watchPage(): () => void {
  const onRefusal = ({ effectiveDirective, blockedURI }: SecurityPolicyViolationEvent): void =>
    sayProblem(refused(effectiveDirective, blockedURI));
  const onRejection = ({ reason }: PromiseRejectionEvent): void => sayProblem(reason);
  document.addEventListener('securitypolicyviolation', onRefusal);
  window.addEventListener('unhandledrejection', onRejection);
  return () => {
    document.removeEventListener('securitypolicyviolation', onRefusal);
    window.removeEventListener('unhandledrejection', onRejection);
  };
}
