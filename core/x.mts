import { CATALOGUE } from './src/mechanism/catalogue.js';
import { dice, treeOf } from './src/testing/any-tree.js';
import { TREE_LAWS } from './src/testing/tree-laws.js';
const BASES:any[] = CATALOGUE.filter((m:any)=>m.kind==='base');
const next=dice(91); const want=process.argv[2];
const only=want?new Set(want.split(',')):null;
for(let i=0;i<1000;i++){const base=BASES[i%BASES.length];const own=Math.floor(next()*2**31);
 if(only&&!only.has(String(own)))continue; if(!only&&base.id!=='box-card'&&own!==628803926&&own!==1554167563)continue;
 const card=treeOf(base,own);
 for(const l of TREE_LAWS){let w;try{w=l.broken(card);}catch(e:any){w='throws '+e.message;} if(w)console.log(i,base.id,own,l.says,':',w);}
 if(i%100===99)console.log('...',i+1);}
