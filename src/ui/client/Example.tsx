'use client';
import { Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { ExampleView } from '../../api';
import { plural } from '../../core/base';
import Link from '../kit/Link';
import { call } from './index';
import { useAsk } from './use-ask';
import './Example.css';

interface Props {
  readonly first: ExampleView;
  readonly mayChange: boolean;
}

/** A made-up business to look round in: begun with, and taken away in one step, after a look at what goes. */
export function Example({ first, mayChange }: Props) {
  const router = useRouter();
  const [view, setView] = useState(first);
  const [asked, setAsked] = useState(false);
  const { busy, said, ask } = useAsk();
  const took = (next: ExampleView): void => {
    setView(next);
    setAsked(false);
    router.refresh();
  };
  const { here } = view;
  if (here === null && view.offers.length === 0) return null;
  return (
    <div className="example-box" role="group" aria-label="Example">
      {here === null
        ? view.offers.map((offer) => (
            <p key={offer.name}>
              <span className="strong">{offer.title}</span>
              <span className="quiet small">
                {offer.about}: {plural(offer.companies, 'company', 'companies')}, {plural(offer.people, 'person', 'people')}, a flow to try
              </span>
              {mayChange ? (
                <Button
                  disabled={busy}
                  onClick={() => {
                    ask(call('beginExample', { body: { name: offer.name } }), `${offer.title} is here, beside what is yours.`, took);
                  }}
                >
                  {busy ? 'Bringing it …' : `Begin with ${offer.title}`}
                </Button>
              ) : null}
            </p>
          ))
        : null}
      {here ? (
        <p>
          <span className="strong">{here.title} is here</span>
          <span className="quiet small">
            made up, beside what is yours:{' '}
            {here.flows.map(({ id, name }) => (
              <Link key={id} href={`/flows/${id}`}>
                {name}
              </Link>
            ))}{' '}
            is a draft to try
          </span>
        </p>
      ) : null}
      {here && asked ? (
        <>
          <p className="quiet small">These go: {here.goes.join(', ')}; with their facts, trips, mails and deals.</p>
          {here.stays.length > 0 ? <p className="quiet small">These stay, since they are in use: {here.stays.join(', ')}.</p> : null}
        </>
      ) : null}
      {here && mayChange ? (
        <p className="example-acts">
          <Button
            variant={asked ? 'contained' : 'outlined'}
            disabled={busy}
            onClick={() => {
              if (asked) ask(call('removeExample', { body: {} }), `${here.title} is gone.`, took);
              else setAsked(true);
            }}
          >
            {busy ? 'Removing …' : asked ? 'Take all of it away' : 'Remove the example …'}
          </Button>
          {asked ? (
            <Button
              onClick={() => {
                setAsked(false);
              }}
            >
              Keep it
            </Button>
          ) : null}
        </p>
      ) : null}
      {said ? (
        <p className={said.calm ? 'small in-moss' : 'small in-brick'} role={said.calm ? 'status' : 'alert'}>
          {said.text}
        </p>
      ) : null}
    </div>
  );
}
