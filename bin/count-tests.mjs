#!/usr/bin/env node
/** Prints how many tests of a report passed and failed. A missing or empty report counts as a failure. */
import { readFileSync } from 'node:fs';

try {
  const report = JSON.parse(readFileSync(process.argv[2], 'utf8'));
  const broken = report.testResults.filter(
    (file) => file.status === 'failed' && file.assertionResults.length === 0,
  ).length;
  const none = report.numPassedTests + report.numFailedTests === 0 ? 1 : 0;
  console.log(`${report.numPassedTests} ${report.numFailedTests + broken + none}`);
} catch {
  console.log('0 1');
}
