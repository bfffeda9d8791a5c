// Reads many entries of the Register apart from the page: a large file takes a second or two.
import { expose } from 'comlink';
import { registerFromCsv } from '../../core/senders/registerCsv';

expose(registerFromCsv);
