import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { fileName } from './file-name';

describe('the name of a file', () => {
  it('keeps the letters of every script', () => {
    expect(fileName('Out to the yard')).toBe('out-to-the-yard');
    expect(fileName('Füße & Hände')).toBe('füße-hände');
    expect(fileName('Мастерская 2')).toBe('мастерская-2');
    expect(fileName('工作台 / 夜')).toBe('工作台-夜');
    expect(fileName('वर्कशॉप')).toBe('वर्कशॉप');
    expect(fileName('…/..\\:*?"<>|')).toBe('film');
    expect(fileName('', 'moment')).toBe('moment');
  });

  it('is short enough and safe whatever it is made of', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 400 }), (text) => {
        const name = fileName(text);
        expect(new TextEncoder().encode(name).length).toBeLessThanOrEqual(120);
        expect(name).toMatch(/^[^\\/:*?"<>|.\s\u0000-\u001f]+$/u);
      }),
    );
    expect(fileName('工'.repeat(300))).toBe('工'.repeat(40));
  });
});
