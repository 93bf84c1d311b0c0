import { cardOn, evaluated } from './src/testing/evaluated.js';
import { dressedBy, linedOver } from './src/card/dress-card.js';
import { starterFor } from './src/supplies/starter-workshops.js';
import { foldBetween } from './src/dress/liner.js';
import { boxOf } from './src/plane/outline.js';
const w=starterFor('mm');
for (const id of ['swing','box-card','half-turn-stand','film-stand']) {
let card = dressedBy(cardOn(id), {border:3}, w);
const e0=evaluated(card);
const L=e0.dressed.layers.filter(l=>l.step===1&&!l.covers);
for (const a of L) for (const b of L) if (a.panel<b.panel && a.face===b.face) { const h=foldBetween(e0.design,[a.panel,b.panel]); if(h){ console.log(id,a.panel,b.panel,a.face,JSON.stringify([h.source.crease.from,h.source.crease.to]),a.area.holes.length,b.area.holes.length); card=linedOver(card,{face:a.face,panels:[a.panel,b.panel]},true);} }
const e=evaluated(card);
for (const l of e.dressed.layers.filter(l=>l.liner)) console.log('  ',l.number,l.panel,l.face,JSON.stringify(l.area.outer), l.sheet.width,l.sheet.height, JSON.stringify(l.liner!.folds), JSON.stringify(l.sheet.outline));
}
