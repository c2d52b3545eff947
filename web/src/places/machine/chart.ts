import type { Schemas } from '../../api/client';
import type { Span } from '../../ui/chart/span';
import { parseDay } from '../../words/format';

/** Days drawn beyond the present one. */
const FORECAST_DAYS = 90;

/** What the charts of a machine are given: they look at the same stretch of time. */
export interface MachineChart {
  tag: string;
  part: Schemas['PartAnswer'];
  services: readonly Schemas['ServiceEntry'][];
  asOf: string;
  /** What is looked at; null for all of it. */
  span: Span | null;
  onSpan: (span: Span | null) => void;
}

/** Where a chart ends, ms. */
export const chartEnd = (asOf: string): number => parseDay(asOf).getTime() + FORECAST_DAYS * 86_400_000;
