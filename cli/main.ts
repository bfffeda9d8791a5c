// `npm run cli -- VERB FILE…`: the core on files, without a browser. What each verb prints stands in docs/cli.md.
import { run } from './run';

const code = await run(process.argv.slice(2), {
  out: (text) => void process.stdout.write(text),
  error: (text) => void process.stderr.write(text),
  binary: async (bytes) => {
    if (!process.stdout.write(bytes)) await new Promise((resolve) => process.stdout.once('drain', resolve));
  },
});
process.exitCode = code;
