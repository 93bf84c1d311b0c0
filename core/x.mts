import { cardOn, evaluated } from './src/testing/evaluated.js';
import { dressedBy } from './src/card/dress-card.js';
import { starterFor } from './src/supplies/starter-workshops.js';
import { cuttingPlan } from './src/plan/cutting-plan.js';
import { rowFrom } from './src/plan/beside-words.js';
import { CATALOGUE } from './src/mechanism/catalogue.js';
const w=starterFor('mm');
for (const m of CATALOGUE.filter(m=>m.kind==='base')) { try {
const e = evaluated(dressedBy(cardOn(m.id), {border:3, runsOn:true}, w));
const p = cuttingPlan(e,{copies:1,tool:'trimmer',sheets:[]},w);
console.log(m.id, p.sheets.map(s=>s.pieces.map(x=>rowFrom(x,s.pieces).length).join(',')).join(' | '));
} catch(e) {console.log(m.id, String(e).slice(0,200))} }
