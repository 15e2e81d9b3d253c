import type { archiveRoutes } from '@kauri/core/contract';
import type { HandlersOf } from '../../http/context';
import { mustBeAtHome } from '../people/memberships';
import { bringIn } from './bringIn';
import { takeOut } from './takeOut';

export const archiveHandlers: HandlersOf<typeof archiveRoutes> = {
  async takeOut(call) {
    await takeOut(call);
    return '';
  },
  async bringIn({ server, person, req }) {
    await mustBeAtHome(server, person!);
    const brought = await bringIn(server, person!, req);
    server.askToday(brought.nurseryId);
    return brought;
  },
};
