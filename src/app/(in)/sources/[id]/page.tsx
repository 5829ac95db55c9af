import { liveFlows } from '../../../../server/flows/flows';
import { previewImport } from '../../../../server/intake/import-preview';
import { importStatus } from '../../../../server/intake/imports';
import { TakeIn } from '../../../../ui/sources/view/TakeIn';
import { orNotFound } from '../../../not-found-or';
import { signed } from '../../../session';

export const metadata = { title: 'Take in a file' };

export default async function TakeInPage({ params }: { readonly params: Promise<{ id: string }> }) {
  const { world, may } = await signed();
  const { id } = await params;
  const status = await orNotFound(importStatus(world, id));
  const preview = status.state === 'looked at' || status.state === 'failed' ? await previewImport(world, id, {}) : null;
  const live = await liveFlows(world);
  return <TakeIn status={status} preview={preview} flows={live} mayTakeIn={may('take in')} />;
}
