import { approachRoutes } from './approaches/routes';
import { athleteRoutes } from './athletes/routes';
import { restoringRoutes } from './clubFile/restoring';
import { invitationRoutes } from './club/invitations';
import { memberRoutes } from './club/members';
import { clubRoutes } from './club/routes';
import { deedRoutes } from './deeds/routes';
import { faultRoutes } from './faults/routes';
import { filmRoutes } from './film/routes';
import { groundRoutes } from './grounds/routes';
import type { Route } from './http/route';
import { movementRoutes } from './movements/routes';
import { ownCountRoutes, ownLinkRoutes } from './ownView/routes';
import { reportRoutes } from './reports/routes';
import { repRoutes } from './reps/routes';
import { clockRoutes } from './sessions/clock';
import { sessionRoutes } from './sessions/routes';
import { todayRoutes } from './today/routes';

/** Every route that needs a club. */
export const ROUTES: readonly Route[] = [
  ...clubRoutes,
  ...memberRoutes,
  ...invitationRoutes,
  ...deedRoutes,
  ...restoringRoutes,
  ...athleteRoutes,
  ...movementRoutes,
  ...groundRoutes,
  ...approachRoutes,
  ...sessionRoutes,
  ...clockRoutes,
  ...repRoutes,
  ...faultRoutes,
  ...filmRoutes,
  ...ownLinkRoutes,
  ...ownCountRoutes,
  ...reportRoutes,
  ...todayRoutes,
];
