#!/usr/bin/env node
/** Prints how many tests of a report passed and failed. A missing or empty report counts as a failure. */
import { readFileSync } from 'node:fs';

try {
  const report = JSON.parse(readFileSync(process.argv[2], 'utf8'));
  // A file can fail before or beside its tests: where it is read, or where it is set up and taken down.
  const broken = report.testResults.filter(
    (file) => file.status === 'failed' && !file.assertionResults.some(({ status }) => status === 'failed'),
  ).length;
  const none = report.numPassedTests + report.numFailedTests === 0 ? 1 : 0;
  console.log(`${report.numPassedTests} ${report.numFailedTests + broken + none}`);
} catch {
  console.log('0 1');
}
