import { describe, expect, it } from 'vitest';
import Papa from 'papaparse';
import { writeCsv } from './csv';

describe('CSV', () => {
  it('takes the edge off formulas and leaves numbers and times with a sign as they are', () => {
    // OWASP's list of what begins a formula.
    const bad = ['=1+1', '+cmd|x', '-2+3', '@SUM(A1)', '\t=1', '\r=1', '+', '-x', '=HYPERLINK("a")'];
    const good = [
      '+0:30',
      '+12:05',
      '-12.5',
      '-3',
      '+1',
      '-0.25 %',
      '-12.500 px',
      '-00:00:02:01',
      'Left: first role',
      '−4',
      'a=b',
      '',
    ];
    const { data } = Papa.parse<string[]>(
      writeCsv(
        ['one'],
        [...bad, ...good].map((cell) => [cell]),
      ),
    );
    const cells = data.slice(1).map(([cell]) => cell);
    expect(cells.slice(0, bad.length)).toEqual(bad.map((cell) => `'${cell}`));
    expect(cells.slice(bad.length)).toEqual(good);
  });

  it('keeps quotes, commas, line breaks and every script', () => {
    const row = ['a "b"', 'c, d', 'two\nlines', 'Мастерская', '工作台', 'ورشة'];
    const { data } = Papa.parse<string[]>(writeCsv(['a', 'b', 'c', 'd', 'e', 'f'], [row]));
    expect(data[1]).toEqual(row);
  });
});
