// Reads a file of a calendar apart from the page: a stranger’s file may be large.
import { expose } from 'comlink';
import { readCalendar } from '../../core/agenda/readCalendar';

expose(readCalendar);
