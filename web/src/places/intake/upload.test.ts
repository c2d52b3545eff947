import { describe, expect, it } from 'vitest';
import { kindOfText, refusedCsv } from './upload';

describe('Intake', () => {
  it('tells what a file is by its first line', () => {
    expect(kindOfText('\uFEFF{"format":"pyrometron-fleet/1"}')).toBe('fleet');
    expect(kindOfText('asset,"time",core_c\r\n')).toBe('readings');
    expect(kindOfText('date,asset,level\n')).toBe('services');
    expect(kindOfText('time;asset;cpu_c\n')).toBe('readings');
    expect(kindOfText('Inventarnr;Typ;Gekauft am\nPC-1;Desktop;1.4.2022\n')).toBe('table');
    expect(kindOfText('Datum;Uhrzeit;CPU [°C]\n2.3.2026;09:00:00;60,5\n2.3.2026;09:00:10;60,5\n')).toBe(
      'log',
    );
    expect(kindOfText('meow')).toBeNull();
  });

  /** RFC 4180, section 2: quotes around commas, quotes doubled, lines end with CRLF. */
  it('writes the refused lines as CSV', () => {
    expect(
      refusedCsv([
        { line: 3, column: null, message: '', says: { template: 'it says "hot", not a number', values: [] } },
      ]),
    ).toBe('line,column,reason\r\n3,,"it says ""hot"", not a number"\r\n');
  });
});
