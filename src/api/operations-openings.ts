import { z } from 'zod';
import { openingSchema } from '../core/hiring';
import { op, uuid } from './op';
import * as s from './schemas';

const openingShape = z.object({
  id: uuid,
  name: z.string(),
  place: z.string(),
  description: z.string(),
  criteria: z.array(z.string()),
  stages: z.array(z.string()),
  isOpen: z.boolean(),
  createdAt: s.instant,
  applications: z.number().int(),
  own: s.ownValues.describe('values of the fields openings have in this workspace'),
});
export const applicationShape = z.object({
  id: uuid,
  openingId: uuid,
  openingName: z.string(),
  stages: z.array(z.string()),
  personId: uuid,
  personName: z.string(),
  stage: z.string(),
  stageSince: s.instant,
  ownerName: z.string().nullable(),
  createdAt: s.instant,
  education: z.string().nullable(),
  own: s.ownValues.describe('values of own fields of the person'),
  values: s.ownValues.describe('values of the fields applications have in this workspace'),
  years: z.number().nullable(),
  languages: z.string().nullable(),
  driving: z.boolean().nullable(),
  place: z.string().nullable(),
});

/** Openings and applications. */
export const OPENING_OPERATIONS = {
  listOpenings: op({
    method: 'GET',
    path: '/openings',
    summary: 'Openings, the open ones first.',
    needs: 'look',
    answer: z.object({ items: z.array(openingShape) }),
  }),
  createOpening: op({
    method: 'POST',
    path: '/openings',
    changes: ['openings'],
    summary: 'Make an opening; flows can open applications for it by its name.',
    needs: 'change records',
    body: openingSchema.extend({ name: z.string().trim().min(1).max(80) }),
    answer: z.object({ id: uuid }),
    status: 201,
  }),
  getOpening: op({
    method: 'GET',
    path: '/openings/{id}',
    summary: 'An opening and who has applied for it, newest first.',
    needs: 'look',
    answer: z.object({ opening: openingShape, known: z.array(s.knownSchema), applications: z.array(applicationShape) }),
  }),
  saveOpening: op({
    method: 'PUT',
    path: '/openings/{id}',
    changes: ['openings'],
    summary: 'Change an opening, or close it. A stage that somebody is at stays.',
    needs: 'change records',
    body: openingSchema,
    answer: openingShape,
  }),
  changeOpening: op({
    method: 'PATCH',
    path: '/openings/{id}',
    changes: ['openings', 'record:{id}'],
    summary: 'Set values of the fields that openings have in this workspace.',
    needs: 'change records',
    body: s.valueChange,
    answer: openingShape,
  }),
  changeApplication: op({
    method: 'PATCH',
    path: '/applications/{id}',
    changes: ['openings', 'records', 'record:*'],
    summary: 'Move an application to another stage, or set values of its fields.',
    needs: 'change records',
    body: s.valueChange.partial().extend({ stage: z.string().max(60).optional() }),
    answer: applicationShape,
  }),
} as const;
