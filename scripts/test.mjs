// `npm test`: installs what tests need, then runs the unit tests and the browser tests.
import { installChromium, installPackages, installSieveParser, run } from './install.mjs';

installPackages();
const chromium = installChromium();
installSieveParser();
run('npx', ['jest']);
run('npx', ['playwright', 'test'], { CHROMIUM: chromium });
