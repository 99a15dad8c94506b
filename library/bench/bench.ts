import { bodyOf } from '@gravek/core/layout/body';
import { measure } from '../../core/bench/measure';
import { MOVEMENTS } from '../src/movement/movements';
import { laidOut } from '../src/planning/plan';
import { searchIn } from '../src/movement/search';

/** How long every movement takes to lay out, and a search while one types. */
const body = bodyOf({
  trials: [],
  heightM: 1.8,
  legM: null,
  shoeM: null,
  hand: 'left',
  takeoffFoot: 'right',
});
const search = searchIn(MOVEMENTS);

measure({
  ...Object.fromEntries(
    MOVEMENTS.map((movement) => [`lay out: ${movement.name}`, () => laidOut(movement, body)]),
  ),
  'search: stops dead before the short steps': () => search('stops dead before the short steps'),
  'search: s': () => search('s'),
});
