import NextLink from 'next/link';
import type { ComponentProps } from 'react';

/** A link inside Millrace. Pages are asked for when they are gone to: fetching ahead would load every record of a list. */
export default function Link(props: ComponentProps<typeof NextLink>) {
  return <NextLink prefetch={false} {...props} />;
}
