import { z } from "zod";
import { action } from "../../../../../server/web/http";
import { linkToken, replaceLink, revokeLink } from "../../../../../server/web/overlays";
import { services } from "../../../../../server/web/services";

export const POST = action(
  "overlay.link",
  z.object({ do: z.enum(["copy", "replace", "revoke"]) }),
  async ({ session, params, body, audit }) => {
    const web = services();
    const overlay = params["id"] ?? "";
    await audit({ overlay, do: body.do });
    switch (body.do) {
      case "copy":
        return linkToken(web, session.channelId, overlay);
      case "replace":
        return replaceLink(web, session.channelId, overlay);
      case "revoke":
        return revokeLink(web, session.channelId, overlay);
    }
  },
);
