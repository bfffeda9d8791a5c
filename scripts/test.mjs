// `npm test`: installs what tests need, then runs the unit tests and the browser tests. A browser waits as much as it works:
// the unit tests have the time in which it does, and are told of after the browser tests.
import { beginQuietly, installForTests, runBeside } from './install.mjs';

const chromium = await installForTests();
const unitTests = beginQuietly('npx', ['jest', ...process.argv.slice(2)]);
const browserTests = await runBeside('npx', ['playwright', 'test'], { CHROMIUM: chromium });
process.exitCode = (await unitTests()) || browserTests;
