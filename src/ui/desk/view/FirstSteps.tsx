/** @jsxImportSource @emotion/react */
'use client';
import Link from '../../kit/Link';
import { placed } from '../../kit/placed';

export interface FirstStepView {
  readonly title: string;
  readonly href: string;
  readonly isDone: boolean;
  readonly says: string;
}

/** What is there already and what is missing before work goes through; in any order, and gone when all of it is there. */
export function FirstSteps({ steps }: { readonly steps: readonly FirstStepView[] }) {
  const left = steps.filter((step) => !step.isDone).length;
  return (
    <section aria-label="What is missing" css={placed({ padding: '20px 24px' })}>
      <h2>{left === 1 ? 'One thing is missing' : `${left} things are missing`} before work goes through</h2>
      <p className="quiet" css={placed({ margin: '4px 0 14px' })}>
        In any order; each is checked as you enter it. Who else works here you say under{' '}
        <Link href="/settings/people">people and roles</Link>.
      </p>
      <ul css={placed({ listStyle: 'none', margin: 0, padding: 0, maxWidth: 620 })}>
        {steps.map((step) => (
          <li key={step.href} css={placed({ display: 'flex', gap: 12, padding: '9px 0', borderTop: '1px solid var(--line2)' })}>
            <span role="img" className={step.isDone ? 'in-moss' : 'in-brass'} aria-label={step.isDone ? 'there' : 'missing'}>
              {step.isDone ? '✓' : '○'}
            </span>
            <span className="grow">
              <Link href={step.href} className="strong">
                {step.title}
              </Link>
              <span className="quiet" css={placed({ display: 'block' })}>
                {step.says}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
