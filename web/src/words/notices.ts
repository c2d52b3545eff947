import { t } from '@lingui/core/macro';
import type { Schemas } from '../api/client';

/** What a notice is about, most pressing first. */
export const NOTICE_KINDS: Record<Schemas['NoticeKind'], string> = {
  now: t`needs work now`,
  next: t`is next`,
  'due-this-week': t`due this week or overdue`,
  'group-event': t`many at once`,
  'warm-room': t`room too warm`,
  silent: t`stopped reporting`,
  forgotten: t`forgotten job`,
  'stock-short': t`not on the shelf`,
};

/** How far something that is sent is. */
export const DELIVERY_STATES: Record<Schemas['DeliveryState'], string> = {
  waits: t`waits`,
  sent: t`sent`,
  'given-up': t`given up`,
};

/** How many were noticed after the one that was seen last. */
export const unseen = (notices: readonly Schemas['NoticeAnswer'][], seen: number): number =>
  notices.filter((n) => n.id > seen).length;
