// Attaches each behaviour to the markup that asks for it.
import { attach as dayMarker } from './day-marker.js';
import { attach as keys } from './keys.js';
import { attach as autoSubmit } from './auto-submit.js';
import { attach as livePreview } from './live-preview.js';
import { attach as moreRows } from './more-rows.js';
import { attach as sendOnce } from './send-once.js';
import { attach as fileSize } from './file-size.js';
import { attach as print } from './print.js';
import { attach as skyline } from './skyline.js';
import { attach as working } from './working.js';
import { attach as find } from './find.js';
import { attach as grounds } from './grounds.js';
import { attach as arrange } from './arrange.js';
import { attach as moreRules } from './more-rules.js';
import { attach as readAnew } from './read-anew.js';
import { attach as job } from './job.js';
import { attach as ask } from './ask.js';
import { attach as finder } from './finder.js';
import { attach as plantChoice } from './plant-choice.js';
import { attach as choose } from './choose.js';
import { attach as filterList } from './filter-list.js';
import { attach as later } from './later.js';
import { attach as compact } from './compact.js';
import { attach as dragEnds } from './drag-ends.js';
import { attach as ruleChoice } from './rule-choice.js';
import { attach as remember } from './remember.js';
import { attach as sheetWatch } from './sheet-watch.js';
import { attach as passkey } from './passkey.js';
import { attach as receive } from './receive.js';
import { attach as logLater } from './log-later.js';
import { attach as orderRows } from './order-rows.js';
import { attach as tickAll } from './tick-all.js';
import { attach as above } from './above.js';
import { attach as today, attachOffline } from './today.js';

const all = [
  dragEnds, dayMarker, keys, autoSubmit, livePreview, moreRows, fileSize, sendOnce, print, skyline, working, find, grounds, arrange, moreRules,
  readAnew, job, ask, finder, plantChoice, choose, filterList, later, compact, remember, ruleChoice, sheetWatch, passkey, receive, logLater, tickAll,
  above, today, attachOffline, orderRows,
];
for (const attach of all) attach(document);
// Buttons that only the script makes work are shown from here on.
document.documentElement.dataset.ready = '';
