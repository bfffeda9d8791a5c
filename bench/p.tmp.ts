import { registerFromCsv } from '/work/main/src/core/senders/registerCsv';
import { parseEntry } from '/work/main/src/core/senders/register';
const t=(w:string,f:()=>void)=>{f();f();let b=1e9;for(let i=0;i<5;i++){const s=performance.now();f();b=Math.min(b,performance.now()-s);}console.log(w,(b*5).toFixed(0));};
for (const row of ['=\r\n','\r\n=\r\n',')\r','\r',"'\r\n\r\n",'--b\r\n\r\n']) {
 const text='kind,value,subdomains,except,standing,since,why\r\n'+row.repeat(2e5/row.length);
 t(JSON.stringify(row)+' all',()=>registerFromCsv(text,'blocked',0));
 const v=row.trim(); t(' parseEntry',()=>{for(let i=0;i<1e6/row.length;i++)parseEntry(v)});
}
