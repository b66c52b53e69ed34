import type { Routes } from "../../../server/web/route-kit";
import { accountRoutes } from "./account";
import { boothRoutes } from "./booth";
import { connectionsRoutes } from "./connections";
import { gamesRoutes } from "./games";
import { libraryRoutes } from "./library";
import { overlaysRoutes } from "./overlays";
import { peopleRoutes } from "./people";
import { rehearseRoutes } from "./rehearse";
import { reviewRoutes } from "./review";
import { soldRoutes } from "./sold";
import { viewerPageRoutes } from "./viewer-page";

/** Every route under /api with what it needs, but hush, which the engine answers by itself. */
export const table: Routes = {
  ...accountRoutes,
  ...boothRoutes,
  ...connectionsRoutes,
  ...gamesRoutes,
  ...libraryRoutes,
  ...overlaysRoutes,
  ...peopleRoutes,
  ...rehearseRoutes,
  ...reviewRoutes,
  ...soldRoutes,
  ...viewerPageRoutes,
};
