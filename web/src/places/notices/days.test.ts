import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { unseen } from '../../words/notices';
import { byDay } from './days';

const notice = (id: number, on: string, kind: Schemas['NoticeKind']): Schemas['NoticeAnswer'] => ({
  id,
  on,
  kind,
  says: { template: 'It is so.', values: [] },
  asset: null,
  zone: null,
  zoneName: null,
  gone: null,
});

describe('news by day', () => {
  const news = [
    notice(4, '2026-12-01', 'silent'),
    notice(3, '2026-12-01', 'now'),
    notice(2, '2026-11-30', 'next'),
    notice(1, '2026-12-01', 'silent'),
  ];

  it('puts the newest day first and in it the most pressing kind', () => {
    const days = byDay(news, ['now', 'next', 'silent']);
    expect(days.map((d) => d.day)).toEqual(['2026-12-01', '2026-11-30']);
    expect(days[0]!.kinds.map((k) => [k.kind, k.notices.map((n) => n.id)])).toEqual([
      ['now', [3]],
      ['silent', [4, 1]],
    ]);
  });

  it('leaves out what nobody asked for', () => {
    expect(byDay(news, ['next'])[0]!.kinds).toEqual([]);
    expect(byDay([], ['next'])).toEqual([]);
  });

  it('counts what came after the one seen last', () => {
    expect(unseen(news, 2)).toBe(2);
    expect(unseen(news, 0)).toBe(4);
  });
});
