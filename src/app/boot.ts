// The first thing that runs: the mailroom begins to open the mail, before anything else of the page is there.
import '../mailroom/startWorker';

void import('./early');
void import('./main');
