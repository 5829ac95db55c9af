'use client';
import { useRouter } from 'next/navigation';
import { useShortcuts } from '../../kit/keys';
import Link from '../../kit/Link';

/** The way to the conversations before and after this one that need a person too; J and K go there. */
export function Waiting({ threadId, waiting }: { readonly threadId: string; readonly waiting: readonly string[] }) {
  const router = useRouter();
  const at = waiting.indexOf(threadId);
  const others = waiting.filter((id) => id !== threadId);
  const next = at < 0 ? waiting[0] : waiting[at + 1];
  const before = at > 0 ? waiting[at - 1] : undefined;
  const to = (id: string | undefined) =>
    id !== undefined &&
    (() => {
      router.push(`/messages/${id}`);
    });
  useShortcuts({ j: to(next), k: to(before) });
  if (others.length === 0) return null;
  return (
    <nav className="quiet nowrap" title="conversations that need a person" aria-label="Conversations that need a person">
      {before === undefined ? null : (
        <Link href={`/messages/${before}`} title="K">
          ‹ before
        </Link>
      )}{' '}
      {at < 0 ? `${waiting.length} need a person` : `${at + 1} of ${waiting.length} open`}{' '}
      {next === undefined ? null : (
        <Link href={`/messages/${next}`} title="J">
          next ›
        </Link>
      )}
    </nav>
  );
}
