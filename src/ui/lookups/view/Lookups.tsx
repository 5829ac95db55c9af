/** @jsxImportSource @emotion/react */
'use client';
import { Button } from '@mui/material';
import Link from '../../kit/Link';
import { euro } from '../../kit/format';
import { Empty, Meter, TopBar } from '../../kit/parts';
import { placed } from '../../kit/placed';

export interface ProviderRow {
  readonly provider: string;
  readonly asked: number;
  readonly usable: number;
  readonly wrong: number;
  readonly nothing: number;
  readonly costMicro: number;
}
interface Props {
  readonly chains: readonly {
    readonly name: string;
    readonly field: string;
    readonly providers: readonly { readonly name: string; readonly priceMicro: number }[];
  }[];
  readonly figures: readonly ProviderRow[];
}

/** What each provider of a chain found and cost, measured on our own trips. */
export function Lookups({ chains, figures }: Props) {
  const total = figures.reduce((sum, row) => sum + row.costMicro, 0);
  return (
    <>
      <TopBar
        title="Lookups"
        tags={<span className="quiet">paid providers, asked in order, each answer checked · {euro(total)} so far</span>}
      >
        <Button component={Link} href="/settings/connections">
          Connections
        </Button>
        <Button component={Link} href="/lookups/chains">
          Chains
        </Button>
      </TopBar>
      <div className="cols">
        <section className="col paper grow" tabIndex={0} aria-label="Overview">
          {chains.length === 0 ? (
            <Empty title="No chain yet">A chain asks providers one after the other until one answer is usable.</Empty>
          ) : null}
          {chains.map((chain) => (
            <section key={chain.name} aria-label={chain.name}>
              <div className="bar ruled">
                <h2 className="grow">{chain.name}</h2>
                <span className="quiet">for {chain.field === 'email' ? 'e-mail' : chain.field}</span>
              </div>
              <table className="plain">
                <thead>
                  <tr>
                    <th>asked in order</th>
                    <th className="right">price an answer</th>
                    <th className="right">asked</th>
                    <th className="right">usable</th>
                    <th>share</th>
                    <th className="right">not usable</th>
                    <th className="right">nothing</th>
                    <th className="right">cost</th>
                    <th className="right">a usable answer</th>
                  </tr>
                </thead>
                <tbody>
                  {chain.providers.map((provider, i) => {
                    const row = figures.find((entry) => entry.provider === provider.name);
                    return (
                      <tr key={provider.name}>
                        <td>
                          <span className="quiet">{i + 1}</span> <span className="strong">{provider.name}</span>
                        </td>
                        <td className="right">{euro(provider.priceMicro)}</td>
                        <td className="right">{row?.asked ?? 0}</td>
                        <td className="right strong">{row?.usable ?? 0}</td>
                        <td>
                          <Meter share={row && row.asked > 0 ? row.usable / row.asked : 0} />
                        </td>
                        <td className="right">{row?.wrong ?? 0}</td>
                        <td className="right">{row?.nothing ?? 0}</td>
                        <td className="right">{euro(row?.costMicro ?? 0)}</td>
                        <td className="right strong">{row && row.usable > 0 ? euro(row.costMicro / row.usable) : '–'}</td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </section>
          ))}
          <p className="quiet" css={placed({ padding: '12px 16px' })}>
            Nobody is asked for a value that is known, and no question is paid twice. Trials count nowhere here.
          </p>
        </section>
      </div>
    </>
  );
}
