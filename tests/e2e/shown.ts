import { readFileSync } from 'node:fs';
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

/** Prints what the page showed when a test failed: where only the output of a run is kept, nothing else says it. */
export default class Shown implements Reporter {
  onTestEnd(test: TestCase, result: TestResult) {
    for (const kept of result.attachments) {
      if (kept.name === 'error-context' && kept.path) console.log(`--- ${test.title}\n${readFileSync(kept.path, 'utf8')}`);
    }
  }
}
