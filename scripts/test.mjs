// `npm test`: installs what tests need, then runs the unit tests and the browser tests.
import { installChromium, installPackages, installReaders, run } from './install.mjs';

installPackages();
const chromium = installChromium();
installReaders();
run('npx', ['jest']);
run('npx', ['playwright', 'test'], { CHROMIUM: chromium });
