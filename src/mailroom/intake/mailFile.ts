/** A file as the import needs it: a browser's File is one. */
export interface MailFile {
  name: string;
  size: number;
  slice(start: number, end: number): { arrayBuffer(): Promise<ArrayBuffer> };
}
