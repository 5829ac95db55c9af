import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="empty lost">
      <h1>There is nothing at this address</h1>
      <p>It may have been joined with another record, or the address is mistyped. Nothing was changed.</p>
      <Link href="/">Go to the desk</Link>
    </main>
  );
}
