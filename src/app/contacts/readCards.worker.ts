// Reads a file of cards apart from the page: a stranger’s file may be large.
import { expose } from 'comlink';
import { readCards } from '../../core/contacts/vcard';

expose(readCards);
