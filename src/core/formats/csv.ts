import Papa from 'papaparse';

/**
 * What a spreadsheet would take for a formula; a number or a time with its sign, and its unit, is none.
 * @see OWASP, CSV injection
 */
const formula = /^[=@\t\r]|^[+-](?!\d[\d.,:;]*(?:e[+-]?\d+)?(?: ?[%°a-z]{1,8})?$)/i;

/** Lines of CSV under their heads, safe to open in a spreadsheet. @see RFC 4180 */
export const writeCsv = (fields: readonly string[], data: readonly (readonly unknown[])[]): string =>
  Papa.unparse(
    { fields: [...fields], data: data.map((row) => [...row]) },
    { newline: '\r\n', escapeFormulae: formula },
  );
