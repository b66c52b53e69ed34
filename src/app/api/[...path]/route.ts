import { dispatch } from "../_table/dispatch";

// One route for Next.js: ninety of them take a minute and a half to build.
export { dispatch as DELETE, dispatch as GET, dispatch as PATCH, dispatch as POST, dispatch as PUT };
