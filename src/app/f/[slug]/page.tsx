import { publicForm } from '../../../server/intake/forms';
import { workspace } from '../../../server/platform/world';
import { webWorld } from '../../../server/wire/web';
import { ClosedForm, PublicForm } from '../../../ui/sources/view/PublicForm';

export const dynamic = 'force-dynamic';
export const metadata = { title: { absolute: 'Form' } };

/** A form at its own address, for anybody; inside another page it goes without its head. */
export default async function FormRoute({
  params,
  searchParams,
}: {
  readonly params: Promise<{ slug: string }>;
  readonly searchParams: Promise<{ inside?: string }>;
}) {
  const world = webWorld();
  const { slug } = await params;
  const [shown, space, asked] = await Promise.all([publicForm(world, slug), workspace(world.db), searchParams]);
  if (!shown) return <ClosedForm from={space.name} />;
  return <PublicForm slug={slug} form={shown.form} opened={shown.opened} from={space.name} inside={asked.inside !== undefined} />;
}
