import type { AnswerType } from './tree';

/** What is always picked out of a document of a kind, beside what a line asks for. */
export const DOCUMENT_PARTS = {
  cv: {
    name: 'text',
    email: 'text',
    phone: 'text',
    place: 'text',
    job_title: 'text',
    employer: 'text',
    jobs: 'list',
    years: 'number',
    gaps: 'list',
    education: 'list',
    skills: 'list',
    languages: 'list',
    licences: 'list',
    driving: 'yes/no',
  },
  brief: {
    requirements: 'list',
    excluded: 'list',
    budget: 'text',
    deadline: 'date',
    complexity: 'list',
    decision: 'text',
    contact: 'text',
  },
  call: {
    reason: 'text',
    goals: 'list',
    objections: 'list',
    outcome: 'text',
    next_step: 'text',
    next_day: 'date',
    promises: 'list',
    email: 'text',
    phone: 'text',
    deadline: 'date',
    budget: 'text',
    decision: 'text',
  },
} as const satisfies Readonly<Record<string, Readonly<Record<string, AnswerType['kind']>>>>;

export type DocumentKind = keyof typeof DOCUMENT_PARTS;
export type DocumentPart<K extends DocumentKind> = keyof (typeof DOCUMENT_PARTS)[K] & string;

export const DOCUMENT_KINDS = Object.keys(DOCUMENT_PARTS) as readonly DocumentKind[];
export const isDocumentKind = (word: string): word is DocumentKind => word in DOCUMENT_PARTS;
