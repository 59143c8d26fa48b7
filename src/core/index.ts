/** The front door of the computation. */
export { expand, nextPeriod, periods } from './offers/schedule';
export { prorate } from './prorate';
export { decide } from './access/decide';
