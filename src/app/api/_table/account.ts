import { dropCookie } from "../../../server/web/asked";
import { does, fromOurs, type Routes } from "../../../server/web/route-kit";
import { ok } from "../../../core/kernel/refusal";
import {
  changePassword,
  demoSignIn,
  endSession,
  invite,
  join,
  loginSchema,
  passwordSchema,
  removeOperator,
  setUp,
  signIn,
  choosePublicName,
  publicNameSchema,
} from "../../../server/web/accounts";
import { currentSession, forgetOperator, forgetSession, sessionCookie } from "../../../server/web/http";
import { entrance } from "../../../server/web/open-door";
import { services } from "../../../server/web/services";
import { z } from "zod";

const setUpBody = z.object({
  code: z.string().min(1, "The set-up code is missing.").max(20),
  login: loginSchema,
  password: passwordSchema,
  channel: z.string().trim().min(1, "The channel’s name is missing.").max(80, "The channel’s name has at most 80 characters."),
});

const signInBody = z.object({
  login: z.string().min(1, "Your name is missing.").max(80),
  password: z.string().min(1, "The password is missing.").max(400),
});

export const accountRoutes: Routes = {
  "POST /account/password": does(
    "account",
    z.object({ before: z.string().min(1, "Your current password is missing.").max(400), after: passwordSchema }),
    async ({ session, body, audit }) => {
      const done = await changePassword(services(), session, body.before, body.after);
      if (done.ok) forgetOperator(session.operatorId, session.tokenHash);
      if (done.ok) await audit({ password: "changed" });
      return done;
    },
  ),
  /** The name that viewers read instead of the one that one signs in by. */
  "PUT /account/public-name": does("account", z.object({ name: publicNameSchema }), async ({ session, body, audit }) => {
    const done = await choosePublicName(services(), session, body.name);
    if (done.ok) forgetOperator(session.operatorId);
    if (done.ok) await audit({ publicName: body.name });
    return done;
  }),
  /** Ends one session of one's own; with an empty id, all but this one. */
  "DELETE /account/sessions": does("account", z.object({ id: z.string().max(40) }), async ({ session, body, audit }) => {
    const done = await endSession(services(), session, body.id === "" ? null : body.id);
    if (done.ok) forgetOperator(session.operatorId, session.tokenHash);
    if (done.ok) await audit({ ended: body.id === "" ? "all others" : body.id });
    return done;
  }),
  "POST /demo-sign-in": entrance(z.object({ role: z.enum(["owner", "moderator"]) }), (web, { role }, _address, local, where) =>
    demoSignIn(web, role, local, where),
  ),
  "POST /join": entrance(
    z.object({ token: z.string().min(20).max(64), login: loginSchema, password: passwordSchema }),
    (web, given, address, _local, where) => join(web, given, address, where),
  ),
  "DELETE /operators/:id": does("operators.manage", z.object({}), async ({ session, params, audit }) => {
    const done = await removeOperator(services(), session, params["id"] ?? "");
    if (done.ok) {
      forgetOperator(params["id"] ?? "");
      await audit({ removed: done.value.login });
    }
    return done;
  }),
  /** A link that makes one person a moderator, once. */
  "POST /operators": does("operators.manage", z.object({}), async ({ session, audit }) => {
    const done = await invite(services(), session);
    if (done.ok) await audit({ invite: "made" });
    return done;
  }),
  /** Ends all invitations that were not used. */
  "DELETE /operators": does("operators.manage", z.object({}), async ({ session, audit }) => {
    const ended = await services().store.accounts.endInvites(session.channelId);
    await audit({ invites: "ended" });
    return ok({ ended });
  }),
  "POST /set-up": entrance(setUpBody, (web, given, address, _local, where) => setUp(web, given, address, where)),
  "POST /sign-in": entrance(signInBody, (web, { login, password }, address, local, where, device) =>
    signIn(web, login, password, address, local, where, device),
  ),
  "POST /sign-out": fromOurs(async () => {
    const session = await currentSession();
    if (session !== null) {
      await services().store.accounts.closeSession(session.tokenHash);
      forgetSession(session);
      await services().engine.recheck();
    }
    dropCookie(sessionCookie);
    return ok(null);
  }),
};
