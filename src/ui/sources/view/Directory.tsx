'use client';
import Link from '../../kit/Link';
import { Empty, Said, TopBar } from '../../kit/parts';
import './directory.css';
import { DirectoryCriteria } from './DirectoryCriteria';
import { DirectoryFound } from './DirectoryFound';
import type { SearchService } from '../state/directory';
import { useDirectory } from './useDirectory';

interface Props {
  readonly flows: readonly { readonly id: string; readonly name: string }[];
  readonly mayTakeIn: boolean;
  /** described services that find people or companies */
  readonly services: readonly SearchService[];
}

/** People or companies found by criteria: counted and looked at first, taken in only when asked. */
export function Directory({ flows, mayTakeIn, services }: Props) {
  const search = useDirectory();
  const { look, said, setSaid } = search;
  return (
    <>
      <TopBar
        path={<Link href="/sources">Sources</Link>}
        title="Directory"
        tags={<span className="quiet">people and companies as a directory knows them; nothing is taken in by looking</span>}
      />
      <Said
        said={said}
        onClose={() => {
          setSaid(null);
        }}
      />
      <DirectoryCriteria {...search} services={services} />
      {look === null ? (
        <Empty title="Say whom you look for">
          Every field narrows the search; left empty it asks nothing. You see how many there are and what each would become before anything
          is taken in.
        </Empty>
      ) : (
        <DirectoryFound search={search} look={look} flows={flows} mayTakeIn={mayTakeIn} />
      )}
    </>
  );
}
