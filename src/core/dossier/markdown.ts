import { SOURCE_LABELS } from '../facts';
import { publicUrl, type Dossier, type DossierLine } from './dossier';

/** Characters that Markdown would take for itself. */
const plain = (text: string): string => text.replace(/([\\`*_{}[\]()#+!|<>])/g, '\\$1').replace(/^(\d+)\./, '$1\\.');
const day = (at: number): string => new Date(at).toISOString().slice(0, 10);

function lineText(entry: DossierLine): string {
  const head = entry.label === '' ? plain(entry.text) : `**${plain(entry.label)}**: ${plain(entry.text)}`;
  const rests = entry.quote === null ? '' : ` — “${plain(entry.quote)}”`;
  const from = [
    entry.source === null ? '' : SOURCE_LABELS[entry.source],
    publicUrl(entry) === null ? '' : `<${publicUrl(entry)}>`,
    entry.date === null ? '' : day(entry.date),
    entry.confidence === null ? '' : `${Math.round(entry.confidence * 100)} % sure`,
  ].filter((part) => part !== '');
  const others = entry.others.length === 0 ? '' : ` Also said: ${plain(entry.others.join('; '))}.`;
  return `- ${head}${rests}${from.length === 0 ? '' : ` (${from.join(', ')})`}${others}`;
}

/** The dossier as Markdown (CommonMark): every line with its words, place and day. */
export function dossierMarkdown(dossier: Dossier): string {
  const sections = dossier.sections.map((section) => `## ${section.title}\n\n${section.lines.map(lineText).join('\n')}\n`);
  return [
    `# ${plain(dossier.title)}`,
    '',
    ...(dossier.under === '' ? [] : [plain(dossier.under), '']),
    `Made ${day(dossier.madeAt)}`,
    '',
    ...sections,
  ].join('\n');
}
