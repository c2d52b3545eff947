import type { Schemas } from '../../api/client';

type Notice = Schemas['NoticeAnswer'];

/** Notices of a day, those of one kind together. */
export interface NewsDay {
  day: string;
  kinds: { kind: Notice['kind']; notices: Notice[] }[];
}

/** Notices by day, the newest day first; within it by kind in the order of `kinds`. */
export function byDay(notices: readonly Notice[], kinds: readonly Notice['kind'][]): NewsDay[] {
  const days = new Map<string, Notice[]>();
  for (const notice of notices) days.set(notice.on, [...(days.get(notice.on) ?? []), notice]);
  return [...days]
    .sort(([a], [b]) => b.localeCompare(a))
    .map(([day, of]) => ({
      day,
      kinds: kinds.flatMap((kind) => {
        const mine = of.filter((n) => n.kind === kind);
        return mine.length > 0 ? [{ kind, notices: mine }] : [];
      }),
    }));
}
