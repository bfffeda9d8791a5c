import { fuzzSettings } from './fuzz';
import { demoSetup } from '../demo/setup';
import { readScript, scriptOf } from '../src/core/rules/sieve/read';
import { mutatedText } from './fuzzing';
import { chance } from './chance';
const setup = demoSetup(Date.UTC(2026, 10, 24, 12));
const sieve = scriptOf(setup).script;
const seeds=[1174,2294,2348,2923,5805,16289];
const texts=[sieve.replace('header :contains',"header :contains".repeat(3000)), 'if anyof ('+'header :contains "list-id" "<", '.repeat(2500)+'true) {keep;}', '# folder {"id":"x"}\n'.repeat(3000), 'al, '.repeat(10000), '""'.repeat(30000), 'header :contains "subject" "charter",\n'.repeat(3000), ('if header :contains "a" "b" {\n  addflag "Alarm";\n  fileinto "X";\n}\n').repeat(2000)];
for (const text of texts) { let b=1e9; for(let i=0;i<5;i++){let id=0;const t=performance.now(); readScript(text,setup,()=>'n'+id++); b=Math.min(b,performance.now()-t);} console.log(text.length, (b/(text.length/1e6)).toFixed(0), JSON.stringify(text.slice(0,50))); }
